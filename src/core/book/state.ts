import * as z from 'zod';
import { canonicalText, fingerprintOf } from '@/core/document/print';
import type { SheetState } from '@/core/differences/differences';
import { readEntry } from '@/core/library/entry';
import { designOf } from '@/core/sheet/design-of';
import { designFault } from '@/core/sheet/faults';
import { designSchema, type Sheet, type SheetDesign } from '@/core/sheet/schema';

/** A state of a sheet as the book keeps it: its name and its design. */
export interface KeptState {
  title: string;
  design: SheetDesign;
}

export const keptState = (sheet: SheetState & { title: string }): KeptState => ({
  title: sheet.title,
  design: designOf(sheet),
});

/** The text that a state is stored as; equal states have equal texts. */
export const textOfState = (state: KeptState): string => canonicalText(state);

/** The key under which a state is stored: what is stored twice is stored once. */
export const keyOfText = (text: string): string => fingerprintOf(text);

/** The fingerprint of everything that undo goes back over. */
export function printOfSheet(sheet: SheetState): string {
  let print = prints.get(sheet);
  if (print === undefined) {
    const { title, keeps = [] } = sheet;
    const named = keeps.map(({ id, name, shown }) => [id, name, shown]);
    print = fingerprintOf(canonicalText([title, designOf(sheet), named]));
    prints.set(sheet, print);
  }
  return print;
}

/** States are never changed, but made anew. */
const prints = new WeakMap<SheetState, string>();

const stateSchema = z.strictObject({ title: z.string().max(120), design: designSchema });

/** @throws ReedError `document` naming the field and what is wrong with it */
export const readState = (document: unknown): KeptState =>
  readEntry(
    {
      noun: 'state that the book kept',
      schema: stateSchema,
      fault: ({ design }) => designFault(design, 'design.'),
    },
    document,
  );

/** A sheet as it was in a state, to be looked at: nothing is kept of it, and it is stored nowhere. */
export const sheetInState = (like: Sheet, { title, design }: KeptState): Sheet => ({
  format: like.format,
  version: like.version,
  id: like.id,
  createdAt: like.createdAt,
  updatedAt: like.updatedAt,
  revision: like.revision,
  view: like.view,
  title,
  ...design,
  keeps: [],
});
