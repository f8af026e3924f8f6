import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { loopView } from '@/core/analysis/two-port/two-port';
import type { Circuit, PartOf } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { spaced } from '@/core/response/landmarks';
import { pathCircuit, placedPath } from '@/core/sheet/path-circuit';
import type { Sheet, Supply } from '@/core/sheet/schema';
import type { CurvesOfBoards } from './boards';
import { withoutPause, type Pause } from './layers';

/** How far one op-amp can be driven, and how its loop stands. */
export interface OpAmpRoom {
  part: string;
  /** The stage it belongs to. */
  stage?: string;
  /** The most that the source may give, volts r.m.s., before it can follow no further; by frequency. */
  mostVolts: Float64Array;
  /** The least of these, where, and what gives out there: its swing, or its speed. */
  first: { volts: number; atHz: number; by: 'swing' | 'slew' | 'input' };
  /** Peak volts that it can swing, and whether that is its own or taken for granted. */
  swingVolts: number;
  assumed: boolean;
  /** The noise gain that its maker asks for, where its loop has less at its end. */
  needsNoiseGainDb?: number;
  /** Its loop: where its gain is used up, and by how much it is short of turning round. */
  loop: {
    crossoverHz: number;
    marginDegrees: number;
    /** The greatest of its noise gain within, and what is left of it at the end. */
    noiseGainDb: number;
    endGainDb: number;
  } | null;
}

export interface HeadroomPicture {
  frequenciesHz: Float64Array;
  opAmps: OpAmpRoom[];
  /** What the source gives. */
  sourceVolts: number;
}

/** What feeds op-amps of which nothing is said, either way. */
const USUAL_RAILS = 15;
/** How far inside its rails an op-amp’s output stays, and its inputs work, where its model does not say. */
const USUAL_HEADROOM = 2.5;
/** What an op-amp swings on that. */
export const USUAL_SWING = USUAL_RAILS - USUAL_HEADROOM;
const POINTS = 96;
const LOOP = { fromHz: 1, toHz: 1e9, points: 220 };

/** How loud the source may be before each op-amp of the built path clips or cannot keep up. */
export async function headroomLens(
  sheet: Sheet,
  pause: Pause = withoutPause,
): Promise<HeadroomPicture> {
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = spaced(fromHz, toHz, POINTS);
  const { circuit, owners } = placedPath(sheet, 0, 'built');
  const analysis = new AcAnalysis(circuit);
  const rooms: OpAmpRoom[] = [];
  for (const { part, traces } of drivenOpAmps(analysis, frequenciesHz)) {
    await pause();
    const stage = owners.get(part.id)?.stage;
    const { model } = part;
    const rails = railsOf(model, sheet.parts.supply);
    const loop = loopOf(circuit, part);
    rooms.push({
      part: part.id,
      ...(stage === undefined ? {} : { stage }),
      ...mostOf(model, rails, traces, frequenciesHz),
      swingVolts: rails.swingVolts,
      assumed: rails.assumed,
      loop,
      ...needOf(model, loop),
    });
  }
  rooms.sort((a, b) => a.first.volts - b.first.volts);
  return { frequenciesHz, opAmps: rooms, sourceVolts: sheet.source.volts };
}

/** How much the source of boards may give, by op-amp. */
export const headroomOfBoards: CurvesOfBoards = (sheet) => {
  const hz = spaced(sheet.view.fromHz, sheet.view.toHz, POINTS);
  const opAmps = opAmpsOf(pathCircuit(sheet, 0, 'built'));
  return {
    places: Object.fromEntries(opAmps.map(({ id }) => [id, hz])),
    read: ({ analysis }) =>
      Object.fromEntries(
        drivenOpAmps(analysis, hz).map(({ part, traces }) => {
          const rails = railsOf(part.model, sheet.parts.supply);
          return [part.id, mostOf(part.model, rails, traces, hz).mostVolts];
        }),
      ),
  };
};

const opAmpsOf = (circuit: Circuit) =>
  circuit.parts.filter((p): p is PartOf<'op-amp'> => p.kind === 'op-amp');

/** What the source makes of an op-amp's output, and of its input where that is not held at ground. */
interface Traces {
  output: ComplexTrace;
  input: ComplexTrace | null;
}

function drivenOpAmps(analysis: AcAnalysis, hz: Float64Array) {
  const { circuit } = analysis.system;
  const opAmps = opAmpsOf(circuit);
  const traces = analysis.voltages(
    opAmps.flatMap((p) => [p.out, p.inPlus]),
    hz,
  );
  return opAmps.map((part, i) => ({
    part,
    traces: {
      output: traces[2 * i],
      input: part.inPlus === circuit.ground ? null : traces[2 * i + 1],
    },
  }));
}

/** The most that the source may give, by frequency, and where an op-amp gives out first. */
function mostOf(
  model: PartOf<'op-amp'>['model'],
  { swingVolts, inputVolts }: Pick<ReturnType<typeof railsOf>, 'swingVolts' | 'inputVolts'>,
  { output, input }: Traces,
  frequenciesHz: Float64Array,
): Pick<OpAmpRoom, 'mostVolts' | 'first'> {
  const slew = model === 'ideal' ? undefined : model.slewVoltsPerSecond;
  const mostVolts = new Float64Array(frequenciesHz.length);
  let first: OpAmpRoom['first'] = { volts: Infinity, atHz: frequenciesHz[0], by: 'swing' };
  frequenciesHz.forEach((hz, k) => {
    const fast = slew === undefined ? Infinity : slew / (2 * Math.PI * hz);
    const byOutput = Math.min(swingVolts, fast) / peakAt(output, k);
    const byInput = input ? inputVolts / peakAt(input, k) : Infinity;
    mostVolts[k] = Math.min(byOutput, byInput);
    if (mostVolts[k] >= first.volts) return;
    const by = byInput < byOutput ? 'input' : fast < swingVolts ? 'slew' : 'swing';
    first = { volts: mostVolts[k], atHz: hz, by };
  });
  return { mostVolts, first };
}

/** Peak volts for one volt r.m.s. of the source. */
const peakAt = ({ re, im }: ComplexTrace, k: number): number =>
  Math.SQRT2 * Math.max(Math.hypot(re[k], im[k]), 1e-12);

/** What an op-amp swings, and how far its inputs may go, by its own rails or those of the sheet. */
function railsOf(model: PartOf<'op-amp'>['model'], supply: Supply | undefined) {
  const own = model === 'ideal' ? undefined : model;
  const rails = own?.supply
    ? (own.supply.plusVolts - own.supply.minusVolts) / 2
    : supply === undefined
      ? USUAL_RAILS
      : supply.is === 'single'
        ? supply.volts / 2
        : supply.volts;
  const inside = (volts: number | undefined) => Math.max(0.01, rails - (volts ?? USUAL_HEADROOM));
  return {
    swingVolts: inside(own?.headroomVolts),
    // Inputs are taken to work up to the rails where nothing is said of them.
    inputVolts: own?.inputHeadroomVolts === undefined ? Infinity : inside(own.inputHeadroomVolts),
    assumed: own?.supply === undefined && supply === undefined,
  };
}

/** A device that is not stable at every gain, and has too little of it here. */
function needOf(
  model: PartOf<'op-amp'>['model'],
  loop: OpAmpRoom['loop'],
): Pick<OpAmpRoom, 'needsNoiseGainDb'> {
  if (model === 'ideal' || model.leastNoiseGain === undefined || !loop) return {};
  const needs = 20 * Math.log10(model.leastNoiseGain);
  return loop.endGainDb < needs - 0.1 ? { needsNoiseGainDb: needs } : {};
}

function loopOf(circuit: Circuit, { id, model }: PartOf<'op-amp'>): OpAmpRoom['loop'] {
  if (model === 'ideal') return null;
  try {
    const { crossoverHz, phaseMarginDegrees, noiseGainDb, frequenciesHz } = loopView(
      circuit,
      id,
      spaced(LOOP.fromHz, LOOP.toHz, LOOP.points),
    );
    if (crossoverHz === null || phaseMarginDegrees === null) return null;
    const within = noiseGainDb.filter((_, k) => frequenciesHz[k] < crossoverHz);
    const greatest = within.reduce((a, b) => Math.max(a, b), -Infinity);
    const endGainDb = within[within.length - 1] ?? greatest;
    return { crossoverHz, marginDegrees: phaseMarginDegrees, noiseGainDb: greatest, endGainDb };
  } catch (error) {
    if (error instanceof ReedError) return null;
    throw error;
  }
}
