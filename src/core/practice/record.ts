import * as z from 'zod';
import { within } from '@/core/quantity/bounds';

const name = z.string().min(1).max(200);

const askedSchema = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('level'), net: name, hz: within('hertz') }),
  z.strictObject({ is: z.literal('sweep'), net: name }),
  z.strictObject({ is: z.literal('resistance'), between: z.tuple([name, name]) }),
  z.strictObject({ is: z.literal('part'), part: name }),
]);

/** One measurement that was asked for. */
export type Asked = z.infer<typeof askedSchema>;

/** What was done with one board: all that it takes to come back to it as it was left. */
export const recordSchema = z.strictObject({
  asked: z.array(askedSchema).max(200),
  /** Parts that were blamed, the last being right where `solved` says so. */
  blamed: z.array(z.array(name).min(1).max(2)).max(50),
  /** Nobody knows yet, the learner does, or was shown. */
  state: z.enum(['open', 'solved', 'shown']),
});

export type PracticeRecord = z.infer<typeof recordSchema>;

export const UNTOUCHED: PracticeRecord = { asked: [], blamed: [], state: 'open' };
