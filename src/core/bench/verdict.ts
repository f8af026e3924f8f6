import type { ReadingSpread } from '@/core/spread/spread';

type Limits = Pick<ReadingSpread, 'p1' | 'p50' | 'p99'>;

/** Standard deviations of a normal deviate to either side of which one in a hundred lies. */
const ONE_IN_A_HUNDRED = 2.33;

/**
 * Whether a reading lies outside what tolerances allow, by more than its noise explains.
 *
 * @param noise how far it is off by noise, one standard deviation
 */
export const isOutside = (value: number, noise: number, { p1, p99 }: Limits): boolean =>
  value < p1 - ONE_IN_A_HUNDRED * noise || value > p99 + ONE_IN_A_HUNDRED * noise;

/** How far a reading lies from the middle of all boards, in standard deviations of those and of its noise. */
export function awayBy(value: number, noise: number, { p1, p50, p99 }: Limits): number {
  const spread = (p99 - p1) / (2 * ONE_IN_A_HUNDRED);
  const whole = Math.hypot(spread, noise);
  return whole > 0 ? Math.abs(value - p50) / whole : 0;
}

/** A board is odd when it lies so far away, and so many times as far as any other. */
const ODD = 3;
const TIMES = 1.5;

/**
 * Which of many boards is unlike the rest.
 *
 * @param away by board, how far its readings lie from the middle
 * @returns its place; nothing where there is one board alone, or none stands out
 */
export function oddest(away: readonly (readonly number[])[]): number | null {
  const farthest = away.map((own) => Math.max(0, ...own));
  const worst = farthest.indexOf(Math.max(...farthest));
  const next = Math.max(0, ...farthest.filter((_, i) => i !== worst));
  return away.length > 1 && farthest[worst] >= ODD && farthest[worst] >= TIMES * next
    ? worst
    : null;
}
