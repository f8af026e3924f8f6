import * as z from 'zod';
import { pricesSchema } from '@/core/weigh/prices';
import type { Preferences } from './preferences';

const preferencesSchema = z
  .object({
    theme: z.enum(['system', 'light', 'dark']),
    resistors: z.enum(['box', 'zigzag']),
    mark: z.enum(['point', 'comma']),
    spread: z.boolean(),
    margin: z.boolean(),
    prices: pricesSchema,
  })
  .partial();

/** What can be read of preferences that were stored elsewhere; what cannot is left as it is. */
export function readPreferences(stored: unknown): Partial<Preferences> {
  const result = preferencesSchema.safeParse(stored);
  return result.success ? result.data : {};
}
