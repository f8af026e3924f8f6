import type { Wanted } from './schema';

/** A response made to touch its limit does so to rounding. */
const ROUNDING = 1e-7;

/**
 * How far a measured value misses what was wanted, in the unit of its measure: positive above,
 * negative below, zero where it is met.
 */
export function missBy(wanted: Wanted, value: number): number {
  if (meets(wanted, value)) return 0;
  if (wanted.is !== 'near') return value - wanted.value;
  const room = wanted.relative ? Math.abs(wanted.value) * wanted.tolerance : wanted.tolerance;
  return value - (value > wanted.value ? wanted.value + room : wanted.value - room);
}

/** Whether a measured value is what was wanted. */
export function meets(wanted: Wanted, value: number): boolean {
  switch (wanted.is) {
    case 'near': {
      const room = wanted.relative ? Math.abs(wanted.value) * wanted.tolerance : wanted.tolerance;
      return Math.abs(value - wanted.value) <= room * (1 + 1e-12);
    }
    case 'at-least':
      return value >= wanted.value - ROUNDING * Math.max(1, Math.abs(wanted.value));
    case 'at-most':
      return value <= wanted.value + ROUNDING * Math.max(1, Math.abs(wanted.value));
  }
}
