import * as z from 'zod';
import { ReedError } from '@/core/errors';
import { between, within } from '@/core/quantity/bounds';
import { defineSlot } from './slot-kind';

/** A hump that a trap takes down. */
const hump = {
  hz: within('hertz'),
  /** How far it is taken down at its middle. */
  downDb: between(0.1, 40, ' dB'),
  /** How wide it is where half of that is left, octaves. */
  octaves: between(0.02, 8, ' octaves'),
};

const inLineSchema = z.strictObject({
  is: z.literal('trap-in-line'),
  ...hump,
  /** What the way behind it loads with there. */
  loadOhms: between(0.1, 1e5, ' Ω'),
});
export type TrapInLineSlot = z.infer<typeof inLineSchema>;

const acrossSchema = z.strictObject({
  is: z.literal('trap-across'),
  ...hump,
  /** What the driver and everything before it resist with there, seen side by side. */
  sourceOhms: between(0.01, 1e5, ' Ω'),
});
export type TrapAcrossSlot = z.infer<typeof acrossSchema>;

/**
 * How sharp a trap is for a width. With a = ohms of the trap at its middle over those it works
 * against (or the reverse), |H|^2 = (1 + y)/((1 + a)^2 + y), y = (Q (f/f0 - f0/f))^2; half of its
 * decibels are left where y = 1 + a.
 */
const sharpness = (a: number, octaves: number): number =>
  Math.sqrt(1 + a) / (2 ** (octaves / 2) - 2 ** (-octaves / 2));

const depthOf = (downDb: number): number => 10 ** (downDb / 20) - 1;

/** Coil, capacitor and resistor side by side in the line: R sets the depth, L and C the width. */
export const trapInLine = defineSlot<TrapInLineSlot>({
  is: 'trap-in-line',
  schema: inLineSchema,
  title: 'Trap in line',
  about: 'Three parts side by side in the line: takes a hump down and eases the amplifier’s load',
  name: (slot, { hz, db }) => `Trap in line ${hz(slot.hz)} −${db(slot.downDb)}`,
  arms: () => [
    {
      at: 'line',
      join: 'beside',
      parts: [
        ['coil', 'L1'],
        ['capacitor', 'C1'],
        ['resistor', 'R1'],
      ],
    },
  ],
  values({ hz, downDb, octaves, loadOhms }) {
    const a = depthOf(downDb);
    const w = 2 * Math.PI * hz;
    const R1 = loadOhms * a;
    const q = sharpness(a, octaves);
    return { R1, C1: q / (w * R1), L1: R1 / (w * q) };
  },
});

/** Coil, capacitor and resistor in a row across the driver. */
export const trapAcross = defineSlot<TrapAcrossSlot>({
  is: 'trap-across',
  schema: acrossSchema,
  title: 'Trap across',
  about: 'Three parts in a row across the driver: takes a hump down where a coil lies before it',
  name: (slot, { hz, db }) => `Trap across ${hz(slot.hz)} −${db(slot.downDb)}`,
  arms: () => [
    {
      at: 'across',
      join: 'row',
      parts: [
        ['coil', 'L1'],
        ['capacitor', 'C1'],
        ['resistor', 'R1'],
      ],
    },
  ],
  values({ hz, downDb, octaves, sourceOhms }) {
    const a = depthOf(downDb);
    if (!(a > 0)) throw new ReedError('design', 'A trap must take something down.');
    const w = 2 * Math.PI * hz;
    const R1 = sourceOhms / a;
    const q = sharpness(a, octaves);
    return { R1, L1: (q * R1) / w, C1: 1 / (w * q * R1) };
  },
});
