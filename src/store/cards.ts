import { fnv1a } from '@/core/document/print';
import { stateOfBoard } from '@/core/plan/tasks';
import { sheetWords, whatItDoes } from '@/core/sheet/summary';
import { builtKey } from '@/core/sheet/version-key';
import type { Sheet } from '@/core/sheet/schema';
import { legibleTitle } from '@/core/sheet/salvage';
import type { Card } from './card';
import type { SheetRecord } from './database';
import { isDeleted, type StoredSheet } from './records';

/**
 * A card for a record; a curve that still fits is carried over from the card before.
 *
 * @param stored what was read of the record
 */
export function cardOf(record: SheetRecord, stored: StoredSheet, before?: Card): Card {
  if ('sheet' in stored) return cardOfSheet(record, stored.sheet, before);
  const title = legibleTitle(stored.document);
  return {
    ...baseOf(record),
    title,
    demo: false,
    words: title.toLowerCase(),
    problem: stored.problem,
    curveKey: '',
  };
}

/** The card for a record whose sheet is at hand and known to be sound. */
export function cardOfSheet(record: SheetRecord, sheet: Sheet, before?: Card): Card {
  const curveKey = fingerprint(builtKey(sheet));
  return {
    ...baseOf(record),
    title: sheet.title,
    demo: sheet.demo !== undefined,
    does: whatItDoes(sheet),
    words: sheetWords(sheet),
    boards: sheet.boards.map((b) => ({ ...stateOfBoard(b), note: b.note })),
    curveKey,
    ...(before?.curve?.key === curveKey ? { curve: before.curve } : {}),
  };
}

const baseOf = (record: SheetRecord) => ({
  id: record.id,
  deletedAt: isDeleted(record) ? record.deletedAt : null,
  updatedAt: dateOf(record),
  print: printOf(record),
});

/** Whether a card was made of this very record and could read it. */
export function isSound(card: Card | undefined, record: SheetRecord): boolean {
  return (
    card !== undefined &&
    card.problem === undefined &&
    card.print !== UNPRINTABLE &&
    card.print === printOf(record)
  );
}

/** The record's date, or the document's, or none. */
function dateOf({ updatedAt, document }: SheetRecord): string {
  const inside = (document as { updatedAt?: unknown } | null | undefined)?.updatedAt;
  for (const date of [updatedAt, inside])
    if (typeof date === 'string' && !Number.isNaN(Date.parse(date))) return date;
  return '';
}

/** The print of a record that cannot be written as text: its card is made anew each time. */
export const UNPRINTABLE = 'unprintable';

/** Cards that tell more than those before are made again: they have another print. */
const EDITION = 3;

/** Tells whether a record has changed since its card was made. */
export function printOf({ updatedAt, deletedAt, revision, document }: SheetRecord): string {
  try {
    return fingerprint(JSON.stringify([EDITION, updatedAt, deletedAt, revision, document]) ?? '');
  } catch {
    // Something that cannot be written as text, such as an object within itself.
    return UNPRINTABLE;
  }
}

/** Enough to notice a change: 32 bits, with the length. */
const fingerprint = (text: string): string =>
  `${text.length.toString(36)}.${fnv1a(text).toString(36)}`;
