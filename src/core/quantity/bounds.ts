import * as z from 'zod';
import { inWords } from './format';
import type { QuantityKind } from './kinds';

/*
 * What can be soldered, heard or measured, with a few decades to spare. A number outside is a slip
 * of the pen, and would only bring the arithmetic to its limits.
 */
const BOUNDS = {
  ohms: [1e-3, 1e10],
  farads: [1e-15, 10],
  henries: [1e-10, 1e5],
  siemens: [1e-12, 1e4],
  volts: [1e-6, 1e3],
  amps: [1e-15, 1e3],
  hertz: [1e-3, 1e9],
} as const satisfies Partial<Record<QuantityKind, readonly [number, number]>>;

export type BoundedKind = keyof typeof BOUNDS;

/** A number within the bounds of its kind; `most` may draw them closer. */
export function within(kind: BoundedKind, most: number = BOUNDS[kind][1]) {
  const [least] = BOUNDS[kind];
  return z
    .number({ error: 'must be a finite number' })
    .min(least, `must be at least ${inWords(least, kind)}`)
    .max(most, `must be at most ${inWords(most, kind)}`);
}

/** A plain number between two others. */
export function between(least: number, most: number, unit = '') {
  return z
    .number({ error: 'must be a finite number' })
    .min(least, `must be at least ${least}${unit}`)
    .max(most, `must be at most ${most}${unit}`);
}

/** What is wrong with a value of a kind, in words that follow its name; null when nothing is. */
export function boundsProblem(value: number, kind: BoundedKind): string | null {
  const checked = within(kind).safeParse(value);
  return checked.success ? null : checked.error.issues[0].message;
}

export const isBounded = (kind: QuantityKind): kind is BoundedKind => kind in BOUNDS;
