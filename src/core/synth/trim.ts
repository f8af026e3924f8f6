import { findPeak } from '@/core/numeric/root';

/** How two trimmers best bring a travel to its law. */
export interface Trim {
  /** By how much the scale is to be wider, as a part of it. */
  scale: number;
  cents: number;
  /** What is left at worst, and at which places nothing is. */
  leavesCents: number;
  zeroAt: number[];
}

/**
 * The line through what is missed that leaves the least at worst: for a slope, half of the spread of
 * what is left; over slopes that is convex, so its least is found by golden section.
 *
 * @param cents away from the law, at even places of a travel
 * @param wholeCents of the whole travel by its law
 * @returns null where a place has no cut-off
 */
export function trimOf(cents: Float64Array, wholeCents: number): Trim | null {
  if (cents.some(Number.isNaN)) return null;
  const at = Array.from(cents, (_, k) => k / (cents.length - 1));
  const spread = (slope: number) => {
    const left = cents.map((c, k) => c - slope * at[k]);
    return { least: Math.min(...left), most: Math.max(...left) };
  };
  const widest = 2 * Math.max(1, ...cents.map(Math.abs)) * cents.length;
  const worst = (slope: number) => {
    const { least, most } = spread(slope);
    return (least - most) / 2;
  };
  const slope = findPeak(worst, -widest, widest, 1e-6);
  const { least, most } = spread(slope);
  const offset = (least + most) / 2;
  const left = Array.from(cents, (c, k) => c - slope * at[k] - offset);
  return {
    scale: -slope / wholeCents,
    cents: -(offset + slope / 2),
    leavesCents: (most - least) / 2,
    zeroAt: crossings(left, at),
  };
}

/** Where a course goes through zero. */
function crossings(course: readonly number[], at: readonly number[]): number[] {
  return course.slice(1).flatMap((y, k) => {
    const was = course[k];
    return was === 0 || was < 0 !== y < 0 ? [at[k] + ((at[k + 1] - at[k]) * was) / (was - y)] : [];
  });
}
