import { AcAnalysis } from '@/core/analysis/ac/ac';
import { loopView } from '@/core/analysis/two-port/two-port';
import type { Circuit, PartOf } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { spaced } from '@/core/response/landmarks';
import { placedPath } from '@/core/sheet/path-circuit';
import type { Sheet, Supply } from '@/core/sheet/schema';
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
  const opAmps = circuit.parts.filter((p): p is PartOf<'op-amp'> => p.kind === 'op-amp');
  const traces = analysis.voltages(
    opAmps.map((p) => p.out),
    frequenciesHz,
  );
  const inputs = opAmps.map((p) =>
    p.inPlus === circuit.ground ? null : analysis.voltage(p.inPlus, frequenciesHz),
  );
  const rooms: OpAmpRoom[] = [];
  for (const [i, part] of opAmps.entries()) {
    await pause();
    const stage = owners.get(part.id)?.stage;
    const { model } = part;
    const { swingVolts, inputVolts, assumed } = railsOf(model, sheet.parts.supply);
    const input = inputs[i];
    const slew = model === 'ideal' ? undefined : model.slewVoltsPerSecond;
    const { re, im } = traces[i];
    const mostVolts = new Float64Array(POINTS);
    let first: OpAmpRoom['first'] = { volts: Infinity, atHz: fromHz, by: 'swing' };
    frequenciesHz.forEach((hz, k) => {
      const fast = slew === undefined ? Infinity : slew / (2 * Math.PI * hz);
      const peak = Math.min(swingVolts, fast);
      const byOutput = peak / (Math.SQRT2 * Math.max(Math.hypot(re[k], im[k]), 1e-12));
      const byInput = input
        ? inputVolts / (Math.SQRT2 * Math.max(Math.hypot(input.re[k], input.im[k]), 1e-12))
        : Infinity;
      mostVolts[k] = Math.min(byOutput, byInput);
      if (mostVolts[k] >= first.volts) return;
      const by = byInput < byOutput ? 'input' : fast < swingVolts ? 'slew' : 'swing';
      first = { volts: mostVolts[k], atHz: hz, by };
    });
    const loop = loopOf(circuit, part);
    rooms.push({
      part: part.id,
      ...(stage === undefined ? {} : { stage }),
      mostVolts,
      first,
      swingVolts,
      assumed,
      loop,
      ...needOf(model, loop),
    });
  }
  rooms.sort((a, b) => a.first.volts - b.first.volts);
  return { frequenciesHz, opAmps: rooms, sourceVolts: sheet.source.volts };
}

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
