import type { QuantityKind } from '@/core/quantity/kinds';

/** How a reading moves along a travel. */
export interface Evenness {
  /**
   * The steepest step over an even one: 1 where every step of the travel moves the reading alike.
   * Nothing where the reading hardly moves, or has no value somewhere.
   */
  steepest: number | null;
  /** Whether it goes one way throughout. */
  oneWay: boolean;
}

/** Less than this from end to end is no movement: parts of an octave, or of the reading’s unit. */
const STILL = 1e-3;

/**
 * How evenly a reading moves over equal steps of a travel: frequencies by ratio, as pitch is heard,
 * and everything else by difference.
 */
export function evennessOf(values: ArrayLike<number>, kind: QuantityKind): Evenness {
  const heights = Array.from(values, (v) => (kind === 'hertz' ? Math.log2(v) : v));
  if (heights.some((h) => !Number.isFinite(h))) return { steepest: null, oneWay: false };
  const steps = heights.slice(1).map((h, k) => h - heights[k]);
  const whole = heights[heights.length - 1] - heights[0];
  const oneWay = steps.every((s) => s >= 0) || steps.every((s) => s <= 0);
  if (Math.abs(whole) < STILL) return { steepest: null, oneWay };
  const steepest = Math.max(...steps.map((s) => Math.abs(s)));
  return { steepest: (steepest * steps.length) / Math.abs(whole), oneWay };
}
