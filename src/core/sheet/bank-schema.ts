import * as z from 'zod';
import { positive } from '@/core/circuit/part';
import { between, within } from '@/core/quantity/bounds';

const hertz = within('hertz', 1e7);

/** One channel of a bank; its circuit is the path of the same id. */
export const channelSchema = z.strictObject({
  id: z.string().min(1, 'must not be empty').max(64),
  centreHz: hertz,
  /** Left out, the width follows from the neighbours and the overlap. */
  widthHz: hertz.optional(),
  /** Staggered band-pass stages. */
  stages: z.int().min(1, 'must be at least 1').max(4, 'must be at most 4').default(2),
  gainDb: between(-60, 60, ' dB').default(0),
  /** Parts that are given, by stage and part ("1/R2"); the others are worked out. */
  known: z.record(z.string().max(40), positive).default({}),
  /** What the drawing of a board says of parts that are worked out: a fixed part, and its trimmer. */
  marked: z
    .record(z.string().max(40), z.strictObject({ value: positive, trimmer: positive.optional() }))
    .optional(),
});

/** Many band-passes side by side, driven together and summed. */
export const bankSchema = z.strictObject({
  /** Where neighbours cross, dB under their centres. */
  overlapDb: between(0.01, 40, ' dB').default(3),
  /** Every other channel enters the sum inverted, so that neighbours do not cancel where they cross. */
  alternate: z.boolean().default(true),
  channels: z
    .array(channelSchema)
    .min(1, 'must list at least one')
    .max(40, 'holds at most 40 channels: remove one first'),
});

export type Channel = z.infer<typeof channelSchema>;
export type Bank = z.infer<typeof bankSchema>;
