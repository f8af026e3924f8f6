import { messageOf } from '@/core/errors';
import { LIBRARY_TABLES } from '@/core/library';
import { gate } from '@/core/sheet/gate';
import { readSheet } from '@/core/sheet/read';
import { referencesOf } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import type { ReedDatabase, SheetRecord } from './database';
import { knowKeeps, whole, withKeys } from './keeps';

/** A stored sheet as it is found: read, or the reason why it cannot be. */
export type StoredSheet = { id: string } & (
  { sheet: Sheet } | { problem: string; document: unknown }
);

/**
 * Read records, with their keeps. Their own ids and revisions are what the store goes by; a document
 * that names others is given those of its record.
 */
export async function readRecords(
  records: readonly SheetRecord[],
  db: ReedDatabase,
): Promise<StoredSheet[]> {
  const documents = await whole(records, db);
  return records.map((record, i): StoredSheet => {
    const { id } = record;
    const { document } = documents[i];
    try {
      const sheet = { ...readSheet(document), id, revision: revisionOf(record) };
      knowKeeps(record, sheet);
      return { id, sheet };
    } catch (error) {
      return { id, problem: messageOf(error), document };
    }
  });
}

export async function readRecord(record: SheetRecord, db: ReedDatabase): Promise<StoredSheet> {
  const [read] = await readRecords([record], db);
  return read;
}

/** The revision of a record: its own, or where that is damaged its document's, or zero. */
export function revisionOf({ revision, document }: SheetRecord): number {
  const own = [revision, (document as { revision?: unknown } | null | undefined)?.revision];
  return own.find((r): r is number => Number.isSafeInteger(r) && (r as number) >= 0) ?? 0;
}

/**
 * A sheet as it is stored, its keeps apart.
 *
 * @throws ReedError `range` when it would not read back: nothing is put that does not
 */
export function recordOf(sheet: Sheet, deletedAt: string | null = null): SheetRecord {
  gate(sheet);
  return { ...unchecked(sheet, deletedAt), document: withKeys(sheet) };
}

/** A sheet that is known to read back, as one piece. */
export function unchecked(sheet: Sheet, deletedAt: string | null = null): SheetRecord {
  const references = referencesOf(sheet);
  const refers = LIBRARY_TABLES.flatMap((t) => [...references[t]].map((id) => `${t}/${id}`));
  return {
    id: sheet.id,
    updatedAt: sheet.updatedAt,
    revision: sheet.revision,
    deletedAt,
    document: sheet,
    ...(refers.length > 0 ? { refers } : {}),
  };
}

/** Whether a record stands among the deleted ones; a damaged mark does not hide a sheet. */
export const isDeleted = (record: Pick<SheetRecord, 'deletedAt'>): boolean =>
  typeof record.deletedAt === 'string' && !Number.isNaN(Date.parse(record.deletedAt));
