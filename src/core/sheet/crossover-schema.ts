import * as z from 'zod';
import { between, within } from '@/core/quantity/bounds';
import { boardSchema } from '@/core/sheet/board-schema';
import { ALIGNMENTS } from '@/core/slots/section';
import { placeSchema } from '@/core/speaker/place';
import { surroundingsSchema } from '@/core/speaker/surroundings';

/** What a crossover is asked for, and where it is listened to. */
export const crossoverSchema = z.strictObject({
  /** Where each way hands over to the next, rising. */
  splitsHz: z.array(within('hertz')).max(3, 'holds at most 3 frequencies'),
  alignment: z.enum(ALIGNMENTS),
  order: z.int('must be a whole number').min(1, 'must be at least 1').max(4, 'must be at most 4'),
  /** The resistance that its sections are first designed for, by way. */
  nominalOhms: z.array(between(0.5, 1000, ' Ω')).max(4),
  /** The sum lies within so many dB of its mean over these frequencies. */
  fromHz: within('hertz'),
  toHz: within('hertz'),
  withinDb: between(0.05, 40, ' dB'),
  /** The amplifier is never loaded with less. */
  leastOhms: between(0, 1000, ' Ω'),
  listen: placeSchema,
  /** A baffle, a floor or a wall around it; its units in an endless wall where nothing is said. */
  surroundings: surroundingsSchema.optional(),
  /** The board that it is built on, once a part was moved on it or its coupling is to count. */
  board: boardSchema.optional(),
  /** Volts at which heat is looked at: as loud as it will be. */
  loudVolts: within('volts').default(20),
  /** Further wishes, where they are other than usual. */
  wanted: z
    .strictObject({
      phaseApartDegrees: between(0, 180, '°'),
      nullDb: between(0, 100, ' dB'),
      dipDb: between(0, 100, ' dB'),
      resistorWatts: between(0.01, 1000, ' W'),
    })
    .partial()
    .optional(),
});

export type Crossover = z.infer<typeof crossoverSchema>;
