import type { Wanted } from './schema';

/** Whether a measured value is what was wanted. */
export function meets(wanted: Wanted, value: number): boolean {
  switch (wanted.is) {
    case 'near': {
      const room = wanted.relative ? Math.abs(wanted.value) * wanted.tolerance : wanted.tolerance;
      return Math.abs(value - wanted.value) <= room * (1 + 1e-12);
    }
    case 'at-least':
      return value >= wanted.value;
    case 'at-most':
      return value <= wanted.value;
  }
}
