import { normalDeviate, seededRandom } from '@/core/random';

/** How a value lies about its nominal one. */
export type Shape =
  /** Evenly over its tolerance. */
  | { is: 'uniform' }
  /** The tolerance is three standard deviations, and nothing lies beyond. */
  | { is: 'normal' }
  /** As measured: deviations of which each is as likely, as parts of the value. */
  | { is: 'measured'; deviations: readonly number[] };

/** One value of a circuit that is not exact. */
export interface Deviating {
  /** The part it belongs to. */
  part: string;
  /** Its place among the values of an analysis. */
  parameter: number;
  /** How far it may be off, as a part of its value. */
  tolerance: number;
  shape: Shape;
  /** Parts of one reel: all of one name are off together, but for a share of their own. */
  reel?: string;
  /** How it moves with temperature, as a part of its value a kelvin. */
  perKelvin?: number;
}

/** Of parts of one reel, so much of the deviation is each one's own. */
export const OWN_SHARE = 0.2;

/** Three standard deviations. */
const DEVIATIONS = 3;

/** Numbers of one board, the same for the same seed and board whatever was drawn before. */
export function boardRandom(seed: number, board: number): () => number {
  // Two rounds of mixing, so that neighbouring boards have nothing in common.
  let state = (Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) + Math.imul(board + 1, 0xc2b2ae35)) >>> 0;
  state = Math.imul(state ^ (state >>> 16), 0x7feb352d) >>> 0;
  state = Math.imul(state ^ (state >>> 15), 0x846ca68b) >>> 0;
  return seededRandom((state ^ (state >>> 16)) >>> 0);
}

/** A draw of a shape, as a part of the tolerance; of measured ones as a part of the value. */
function drawn(shape: Shape, random: () => number): number {
  switch (shape.is) {
    case 'uniform':
      return 2 * random() - 1;
    case 'normal':
      for (;;) {
        const deviate = normalDeviate(random) / DEVIATIONS;
        if (Math.abs(deviate) <= 1) return deviate;
      }
    case 'measured':
      return shape.deviations[Math.floor(random() * shape.deviations.length)];
  }
}

/** How far a standard deviation of a shape is, as a part of the value. */
export function standardDeviation({ shape, tolerance }: Deviating): number {
  switch (shape.is) {
    case 'uniform':
      return tolerance / Math.sqrt(3);
    case 'normal':
      return tolerance * CUT_NORMAL;
    case 'measured': {
      const { deviations } = shape;
      const mean = deviations.reduce((a, b) => a + b, 0) / deviations.length;
      return Math.sqrt(deviations.reduce((s, d) => s + (d - mean) ** 2, 0) / deviations.length);
    }
  }
}
/** Of a normal deviate cut at three standard deviations, over those three. */
const CUT_NORMAL = 0.986578 / DEVIATIONS;

/**
 * Draw the deviations of one board, as parts of the values.
 *
 * @param kelvins how far the room may be from the temperature that values are given at
 * @param into filled, by place in the list
 */
export function drawBoard(
  list: readonly Deviating[],
  random: () => number,
  kelvins: number,
  into: Float64Array,
): void {
  const warmer = kelvins > 0 ? kelvins * (2 * random() - 1) : 0;
  const reels = new Map<string, number>();
  list.forEach(({ tolerance, shape, reel, perKelvin = 0 }, i) => {
    const scale = shape.is === 'measured' ? 1 : tolerance;
    let deviation = scale * drawn(shape, random);
    if (reel !== undefined) {
      const shared = reels.get(reel) ?? scale * drawn(shape, random);
      reels.set(reel, shared);
      deviation = (1 - OWN_SHARE) * shared + OWN_SHARE * deviation;
    }
    into[i] = (1 + deviation) * (1 + perKelvin * warmer) - 1;
  });
}
