import * as z from 'zod';
import { ReedError } from '@/core/errors';
import { findZero } from '@/core/numeric/root';
import { between, within } from '@/core/quantity/bounds';
import type { Arm } from './arms';
import { defineSlot } from './slot-kind';

const schema = z.strictObject({
  is: z.literal('pad'),
  /** How much level it takes. */
  downDb: between(0.1, 40, ' dB'),
  /** The load that it keeps. */
  ohms: between(0.5, 1000, ' Ω'),
  /** Two ganged tracks on one shaft: what it takes is set by ear. */
  adjustable: z.boolean().default(false),
  /** A capacitor across its leg in line gives so much back at a frequency, and more above. */
  lift: z.strictObject({ hz: within('hertz'), db: between(0.1, 20, ' dB') }).optional(),
});
export type PadSlot = z.infer<typeof schema>;

/** What the pad passes of a voltage, and both legs: R1 = Z (1 - k), R2 = Z k/(1 - k). */
function legsOf({ downDb, ohms }: Pick<PadSlot, 'downDb' | 'ohms'>) {
  const k = 10 ** (-downDb / 20);
  return { R1: ohms * (1 - k), R2: (ohms * k) / (1 - k) };
}

/**
 * The capacitor across R1 by which the level at the lift's frequency is so much above the pad's own:
 * with P the load and R2 side by side, |H| = P/|P + R1/(1 + j w R1 C)|, which rises with C.
 */
function liftFarads(slot: PadSlot, { hz, db }: NonNullable<PadSlot['lift']>): number {
  if (db >= slot.downDb - 1e-6)
    throw new ReedError(
      'design',
      `A pad that takes ${slot.downDb} dB cannot give ${db} dB back: ask for less than it takes.`,
    );
  const { R1, R2 } = legsOf(slot);
  const load = (R2 * slot.ohms) / (R2 + slot.ohms);
  const w = 2 * Math.PI * hz;
  const liftDb = (farads: number) => {
    const x = w * R1 * farads;
    // R1/(1 + jx), added to the load.
    const re = load + R1 / (1 + x * x);
    const im = (-R1 * x) / (1 + x * x);
    return 20 * Math.log10((load + R1) / Math.hypot(re, im));
  };
  const u = findZero(
    (v) => liftDb(Math.exp(v)) - db,
    Math.log(1e-6 / (w * R1)),
    Math.log(1e6 / (w * R1)),
    1e-12,
  );
  return Math.exp(u);
}

export const pad = defineSlot<PadSlot>({
  is: 'pad',
  schema,
  title: 'Pad',
  about: 'Takes level from a way, both legs, and keeps the load as it was',
  name: ({ downDb, lift, adjustable }, { db, hz }) =>
    `${adjustable ? 'Pad on a shaft' : 'Pad'} −${db(downDb)}${lift ? `, +${db(lift.db)} at ${hz(lift.hz)}` : ''}`,
  arms: ({ lift }): readonly Arm[] => [
    lift
      ? {
          at: 'line',
          join: 'beside',
          parts: [
            ['resistor', 'R1'],
            ['capacitor', 'C1'],
          ],
        }
      : { at: 'line', join: 'row', parts: [['resistor', 'R1']] },
    { at: 'across', join: 'row', parts: [['resistor', 'R2']] },
  ],
  values: (slot) => ({
    ...legsOf(slot),
    ...(slot.lift ? { C1: liftFarads(slot, slot.lift) } : {}),
  }),
});
