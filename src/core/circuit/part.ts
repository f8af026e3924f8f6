import * as z from 'zod';

/** Names of parts and nets: short, printable, without spaces or commas so that commands can list them. */
const name = (what: string) =>
  z
    .string({ error: `${what} must be text` })
    .min(1, `${what} must not be empty`)
    .max(64, `${what} must be at most 64 characters long`)
    .regex(/^[^\s,;"]+$/, `${what} must not contain spaces, commas, semicolons or quotes`);

export const partId = name('a part id');
export const net = name('a net name');

/** What a value lies between that equations can be written with: far more than any part has. */
export const LEAST_VALUE = 1e-30;
export const MOST_VALUE = 1e30;

/** Finite numbers; the message says what is wrong, the schema's path says where. */
export const finite = z
  .number({ error: 'must be a finite number' })
  .min(-MOST_VALUE, `must be at least -${MOST_VALUE}`)
  .max(MOST_VALUE, `must be at most ${MOST_VALUE}`);
export const positive = finite
  .positive('must be greater than zero')
  .min(LEAST_VALUE, `must be at least ${LEAST_VALUE}`);
export const notNegative = finite.nonnegative('must not be negative');

/** Fields every part may carry. */
export const partBase = { id: partId, note: z.string().max(400).optional() };

export interface PartBase {
  id: string;
  kind: string;
  note?: string;
}
