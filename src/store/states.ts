import { deflateSync, inflateSync, strFromU8, strToU8 } from 'fflate';
import { ReedError } from '@/core/errors';
import { keyOfText, keptState, readState, textOfState, type KeptState } from '@/core/book/state';
import type { Sheet } from '@/core/sheet/schema';
import type { ReedDatabase } from './database';

/*
 * States of sheets that the book speaks of, each stored once however many lines speak of it, packed.
 */

export const pack = (text: string): Uint8Array => deflateSync(strToU8(text), { level: 6 });

/** @throws ReedError `document` for what was not packed here */
export function unpack(packed: Uint8Array): string {
  try {
    return strFromU8(inflateSync(packed));
  } catch {
    throw new ReedError(
      'document',
      'A state that the book kept is damaged: it cannot be unpacked.',
    );
  }
}

/** Keep the present state of a sheet; within a transaction. @returns its key */
export async function keepState(sheet: Sheet, db: ReedDatabase): Promise<string> {
  const text = textOfState(keptState(sheet));
  const key = keyOfText(text);
  if ((await db.states.where('key').equals(key).count()) === 0)
    await db.states.put({ key, packed: pack(text) });
  return key;
}

/** States that were read last; they never change. */
const atHand = new Map<string, KeptState>();
const AT_HAND = 6;

/**
 * A state by its key.
 *
 * @throws ReedError `document` when it is missing or cannot be read
 */
export async function stateOf(key: string, db: ReedDatabase): Promise<KeptState> {
  const found = atHand.get(key);
  if (found) return found;
  const record = await db.states.get(key);
  if (!record)
    throw new ReedError('document', 'The state that this line speaks of is not in this browser.');
  let document: unknown;
  try {
    document = JSON.parse(unpack(record.packed));
  } catch (error) {
    if (error instanceof ReedError) throw error;
    throw new ReedError('document', 'A state that the book kept is damaged: it is no JSON.');
  }
  const state = readState(document);
  atHand.set(key, state);
  if (atHand.size > AT_HAND) atHand.delete(atHand.keys().next().value!);
  return state;
}
