import { ReedError } from '@/core/errors';
import type { Take } from '@/core/library/take';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { SweepPlan } from '@/core/sweep/exponential-sweep';
import { swept, type Harmonic, type Recording, type Swept } from '@/core/sweep/swept';
import { sweepSamples, sweptFrequencies, type View } from './sweep-plan';

/** What is off by more than this by itself is drowned, and left out. */
const DROWNED_DB = 3;
/** Harmonics that are told apart. */
const ORDERS = [2, 3];

/** A wire in the board’s place, and how loud the sweep was then. */
export interface LoopBack {
  recording: Recording;
  level: number;
}

export interface SweepRequest {
  view: View;
  plan: SweepPlan;
  /** Of what was played, as a part of full scale. */
  level: number;
  recordings: readonly Recording[];
  loopBack?: LoopBack;
}

export interface SweepTake {
  curve: MeasuredCurve & Pick<Take, 'harmonics'>;
  latencySeconds: number;
  /** True where it came differently late each time: phase is left out then. */
  hasMoved: boolean;
  /** Highest point that came back, as a part of full scale. */
  peak: number;
  /** Points that were left out since noise drowned them. */
  drowned: number;
}

/**
 * A take from recordings of a sweep. Phases are told only where a loop-back says how late everything
 * comes, and it comes equally late each time; points that noise drowns are left out.
 *
 * @throws ReedError `range` as `swept`, and where nothing is left
 */
export function takeOfSweep({ view, plan, level, recordings, loopBack }: SweepRequest): SweepTake {
  const frequenciesHz = sweptFrequencies(view, plan);
  const found = swept({
    plan,
    played: sweepSamples(plan, level),
    recordings,
    frequenciesHz,
    orders: ORDERS,
    ...(loopBack ? { loopBack: louder(loopBack, level) } : {}),
  });
  const { noiseDb, levelDb } = found;
  const kept = levelDb.flatMap((db, k) =>
    Number.isFinite(db) && (noiseDb === undefined || noiseDb[k] <= DROWNED_DB) ? [k] : [],
  );
  if (kept.length === 0)
    throw new ReedError('range', 'All that came back is drowned in noise: turn the source up.');
  return {
    curve: curveOf(found, kept, loopBack !== undefined && !found.hasMoved),
    hasMoved: found.hasMoved,
    latencySeconds: found.latencySeconds,
    peak: found.peak,
    drowned: levelDb.length - kept.length,
  };
}

/** A loop-back as it would have been at another level. */
const louder = ({ recording, level }: LoopBack, wanted: number): Recording => ({
  ...recording,
  samples: recording.samples.map((v) => (v * wanted) / level),
});

function curveOf(found: Swept, kept: readonly number[], phases: boolean): SweepTake['curve'] {
  const some = (values: readonly number[]) => kept.map((k) => values[k]);
  const { frequenciesHz, levelDb, phaseDegrees, noiseDb, harmonics } = found;
  const told = ({ order, levelDb: levels }: Harmonic) => ({
    order,
    levelDb: kept.map((k) => (Number.isFinite(levels[k]) ? levels[k] : null)),
  });
  return {
    frequenciesHz: some(frequenciesHz),
    levelDb: some(levelDb),
    ...(phases && phaseDegrees ? { phaseDegrees: some(phaseDegrees) } : {}),
    ...(noiseDb ? { noiseDb: some(noiseDb) } : {}),
    harmonics: harmonics.map(told),
  };
}
