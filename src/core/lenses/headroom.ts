import { AcAnalysis } from '@/core/analysis/ac/ac';
import { loopView } from '@/core/analysis/two-port/two-port';
import type { Circuit, PartOf } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { spaced } from '@/core/response/landmarks';
import { placedPath } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { withoutPause, type Pause } from './layers';

/** How far one op-amp can be driven, and how its loop stands. */
export interface OpAmpRoom {
  part: string;
  /** The stage it belongs to. */
  stage?: string;
  /** The most that the source may give, volts r.m.s., before it can follow no further; by frequency. */
  mostVolts: Float64Array;
  /** The least of these, where, and what gives out there: its swing, or its speed. */
  first: { volts: number; atHz: number; by: 'swing' | 'slew' };
  /** Peak volts that it can swing, and whether that is its own or taken for granted. */
  swingVolts: number;
  assumed: boolean;
  /** Its loop: where its gain is used up, and by how much it is short of turning round. */
  loop: { crossoverHz: number; marginDegrees: number; noiseGainDb: number } | null;
}

export interface HeadroomPicture {
  frequenciesHz: Float64Array;
  opAmps: OpAmpRoom[];
  /** What the source gives. */
  sourceVolts: number;
}

/** What an op-amp swings where its model does not say: on a usual supply of 15 V either way. */
export const USUAL_SWING = 12.5;
const USUAL_HEADROOM = 1.5;
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
  const rooms: OpAmpRoom[] = [];
  for (const [i, part] of opAmps.entries()) {
    await pause();
    const stage = owners.get(part.id)?.stage;
    const { model } = part;
    const swingVolts = swingOf(model);
    const slew = model === 'ideal' ? undefined : model.slewVoltsPerSecond;
    const { re, im } = traces[i];
    const mostVolts = new Float64Array(POINTS);
    let first: OpAmpRoom['first'] = { volts: Infinity, atHz: fromHz, by: 'swing' };
    frequenciesHz.forEach((hz, k) => {
      const fast = slew === undefined ? Infinity : slew / (2 * Math.PI * hz);
      const peak = Math.min(swingVolts, fast);
      mostVolts[k] = peak / (Math.SQRT2 * Math.max(Math.hypot(re[k], im[k]), 1e-12));
      if (mostVolts[k] < first.volts)
        first = { volts: mostVolts[k], atHz: hz, by: fast < swingVolts ? 'slew' : 'swing' };
    });
    rooms.push({
      part: part.id,
      ...(stage === undefined ? {} : { stage }),
      mostVolts,
      first,
      swingVolts,
      assumed: model === 'ideal' || model.supply === undefined,
      loop: loopOf(circuit, part),
    });
  }
  rooms.sort((a, b) => a.first.volts - b.first.volts);
  return { frequenciesHz, opAmps: rooms, sourceVolts: sheet.source.volts };
}

function swingOf(model: PartOf<'op-amp'>['model']): number {
  if (model === 'ideal' || !model.supply) return USUAL_SWING;
  const { plusVolts, minusVolts } = model.supply;
  return (plusVolts - minusVolts) / 2 - (model.headroomVolts ?? USUAL_HEADROOM);
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
    return { crossoverHz, marginDegrees: phaseMarginDegrees, noiseGainDb: greatest };
  } catch (error) {
    if (error instanceof ReedError) return null;
    throw error;
  }
}
