import * as z from 'zod';
import { between } from '@/core/quantity/bounds';

const part = between(0, 1);

/**
 * What stands around a speaker, each for itself and none of it a measured room: a baffle instead of an
 * endless wall around its units, a floor below it, a wall behind it.
 */
export const surroundingsSchema = z.strictObject({
  baffle: z.strictObject({ widthMetres: between(0.02, 10, ' m') }).optional(),
  /** So far below the middle of the speaker; what part of the pressure comes back from it. */
  floor: z.strictObject({ belowMetres: between(0.01, 100, ' m'), returns: part }).optional(),
  /** So far behind the front of the speaker. It sends back what goes around the baffle. */
  wall: z.strictObject({ behindMetres: between(0.01, 100, ' m'), returns: part }).optional(),
});
export type Surroundings = z.infer<typeof surroundingsSchema>;
