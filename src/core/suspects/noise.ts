import { DEGREES_PER_DB } from '@/core/response/decibels';

/** How far a point of a take is off by itself, one standard deviation, by point. */
export interface Noise {
  levelDb: Float64Array;
  /** Where the take has phases. */
  phaseDegrees?: Float64Array;
}

/** What a take is expected to be off by before it is looked at, and how many points that counts for. */
const EXPECTED_DB = 0.1;
const EXPECTED_POINTS = 2;
/** No take is better than this. */
const LEAST_DB = 0.01;
const LEAST_DEGREES = 0.05;
/** The same noise at every point. */
export const evenNoise = (points: number, db: number, phases: boolean): Noise => ({
  levelDb: new Float64Array(points).fill(db),
  ...(phases ? { phaseDegrees: new Float64Array(points).fill(db * DEGREES_PER_DB) } : {}),
});

/** The median of what a normal deviate is off by. */
const MEDIAN = 0.6745;

/**
 * The noise of a smooth curve, from how far each point lies off the line through its neighbours: that
 * has 3/2 of a point’s variance. The median is not misled by a few sharp bends.
 */
export function roughness(values: ArrayLike<number>): number {
  const off: number[] = [];
  for (let k = 1; k + 1 < values.length; k++)
    off.push(Math.abs(values[k] - (values[k - 1] + values[k + 1]) / 2));
  if (off.length === 0) return Infinity;
  off.sort((a, b) => a - b);
  const middle = (off.length - 1) / 2;
  const median = (off[Math.floor(middle)] + off[Math.ceil(middle)]) / 2;
  return median / MEDIAN / Math.sqrt(1.5);
}

/** What is left of a take that no values explain: the sum of its squares, and of how many points less those values. */
export interface LeftOver {
  squares: number;
  free: number;
}

const settled = ({ squares, free }: LeftOver, expected: number): number =>
  Math.sqrt((squares + EXPECTED_POINTS * expected ** 2) / (Math.max(0, free) + EXPECTED_POINTS));

/** The noise of a take, by what is left of it and of what it is expected to have. */
export function noiseOf(points: number, level: LeftOver, phase?: LeftOver): Noise {
  const db = Math.max(LEAST_DB, settled(level, EXPECTED_DB));
  return {
    levelDb: new Float64Array(points).fill(db),
    ...(phase
      ? {
          phaseDegrees: new Float64Array(points).fill(
            Math.max(LEAST_DEGREES, settled(phase, EXPECTED_DB * DEGREES_PER_DB)),
          ),
        }
      : {}),
  };
}

/** What converters and leads do even where nothing is heard of them. */
const BEYOND_NOISE_DB = 0.02;

/** The noise of a take that was measured with it. */
export const measuredNoise = (noiseDb: readonly number[], phases: boolean): Noise => {
  const levelDb = Float64Array.from(noiseDb, (db) => Math.hypot(db, BEYOND_NOISE_DB));
  return {
    levelDb,
    ...(phases ? { phaseDegrees: levelDb.map((db) => db * DEGREES_PER_DB) } : {}),
  };
};

/** Noise as it was measured, or as many times that as what is left over asks for. */
export function scaledNoise(
  { levelDb, phaseDegrees }: Noise,
  level: LeftOver,
  phase?: LeftOver,
): Noise {
  const times = (values: Float64Array, left: LeftOver) => {
    const scale = Math.max(1, settled(left, 1));
    return values.map((v) => v * scale);
  };
  return {
    levelDb: times(levelDb, level),
    ...(phaseDegrees && phase ? { phaseDegrees: times(phaseDegrees, phase) } : {}),
  };
}
