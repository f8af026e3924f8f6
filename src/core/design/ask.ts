import { z } from 'zod';
import { opAmpModelSchema } from '@/core/circuit/devices/op-amp';
import { finite, positive } from '@/core/circuit/part';
import { EDGES, SHAPES } from '@/core/response/prototypes';

/** The wanted response of one path. */
export const askFields = {
  kind: z.enum(['low-pass', 'high-pass']),
  shape: z.enum(SHAPES).default('butterworth'),
  order: z.int().min(1, 'must be at least 1').max(8, 'must be at most 8'),
  edgeHz: positive.max(1e7, 'must be at most 10 MHz'),
  edge: z.enum(EDGES).default('half-power'),
  rippleDb: positive.max(12, 'must be at most 12 dB').optional(),
  /** Pass-band gain; left out, the topology gives the gain that suits it. */
  gainDb: finite.min(-60).max(60).optional(),
  /** Topology of the second-order sections (of the only section, for order 1). */
  topology: z.string().optional(),
  capacitorFarads: positive.optional(),
  impedanceOhms: positive.optional(),
};

export const askSchema = z.strictObject(askFields);
export type Ask = z.infer<typeof askSchema>;

/** An ask as a file of its own. */
export const askFileSchema = z.strictObject({
  format: z.literal('jaunty-reed/ask', { error: 'must be "jaunty-reed/ask"' }),
  version: z.literal(1, { error: 'must be 1' }),
  ...askFields,
  opAmp: z.union([z.literal('ideal'), opAmpModelSchema]).default('ideal'),
});
export type AskFile = z.infer<typeof askFileSchema>;
