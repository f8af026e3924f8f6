import { messageOf } from '@/core/errors';
import { gate } from '@/core/sheet/gate';
import { readSheet } from '@/core/sheet/read';
import type { Sheet } from '@/core/sheet/schema';
import type { SheetRecord } from './database';

/** A stored sheet as it is found: read, or the reason why it cannot be. */
export type StoredSheet = { id: string } & (
  { sheet: Sheet } | { problem: string; document: unknown }
);

/**
 * Read a record. Its own id and revision are what the store goes by; a document that names others
 * is given those of its record.
 */
export function readRecord(record: SheetRecord): StoredSheet {
  const { id, document } = record;
  try {
    return { id, sheet: { ...readSheet(document), id, revision: revisionOf(record) } };
  } catch (error) {
    return { id, problem: messageOf(error), document };
  }
}

/** The revision of a record: its own, or where that is damaged its document's, or zero. */
export function revisionOf({ revision, document }: SheetRecord): number {
  const own = [revision, (document as { revision?: unknown } | null | undefined)?.revision];
  return own.find((r): r is number => Number.isSafeInteger(r) && (r as number) >= 0) ?? 0;
}

/**
 * A sheet as it is stored.
 *
 * @throws ReedError `range` when it would not read back: nothing is put that does not
 */
export function recordOf(sheet: Sheet, deletedAt: string | null = null): SheetRecord {
  gate(sheet);
  return unchecked(sheet, deletedAt);
}

/** A sheet that is known to read back, as it is stored. */
export function unchecked(sheet: Sheet, deletedAt: string | null = null): SheetRecord {
  return {
    id: sheet.id,
    updatedAt: sheet.updatedAt,
    revision: sheet.revision,
    deletedAt,
    document: sheet,
  };
}

/** Whether a record stands among the deleted ones; a damaged mark does not hide a sheet. */
export const isDeleted = (record: Pick<SheetRecord, 'deletedAt'>): boolean =>
  typeof record.deletedAt === 'string' && !Number.isNaN(Date.parse(record.deletedAt));
