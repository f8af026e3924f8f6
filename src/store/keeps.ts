import type { Keep, Sheet } from '@/core/sheet/schema';
import type { KeepRecord, ReedDatabase, SheetRecord } from './database';
import { newId } from './ids';

/*
 * What is kept of a sheet is large, many times the sheet, and never changes. Each keep is stored once,
 * under a key of its own, and the sheet's record names the keys: an edit writes no keep again.
 */

/** Where keeps that are at hand are stored. */
const stored = new WeakMap<Keep, { sheet: string; key: string }>();

function keyOf(keep: Keep, sheet: string): string {
  let found = stored.get(keep);
  if (found?.sheet !== sheet) stored.set(keep, (found = { sheet, key: newId('k') }));
  return found.key;
}

/** The document of a record, with keys in the place of its keeps. */
export const withKeys = (sheet: Sheet): unknown => ({
  ...sheet,
  keeps: sheet.keeps.map((keep) => keyOf(keep, sheet.id)),
});

/** Whether a record names just the keeps that a sheet has: they were written with it. */
export function namesKeepsOf(record: SheetRecord | undefined, sheet: Sheet): boolean {
  const keys = keysOf(record?.document);
  return (
    record !== undefined &&
    keys.length === sheet.keeps.length &&
    sheet.keeps.every((keep, i) => keys[i] === keyOf(keep, sheet.id))
  );
}

/** Write the keeps of a sheet that are not stored yet and remove those it no longer has; within a transaction. */
export async function putKeeps(sheet: Sheet, db: ReedDatabase): Promise<void> {
  const there = new Set(await db.keeps.where('sheet').equals(sheet.id).primaryKeys());
  const listed = new Set(sheet.keeps.map((keep) => keyOf(keep, sheet.id)));
  const fresh = sheet.keeps.flatMap((keep): KeepRecord[] => {
    const key = keyOf(keep, sheet.id);
    return there.has(key) ? [] : [{ key, sheet: sheet.id, keep }];
  });
  if (fresh.length > 0) await db.keeps.bulkPut(fresh);
  const gone = [...there].filter((key) => !listed.has(key));
  if (gone.length > 0) await db.keeps.bulkDelete(gone);
}

const keysOf = (document: unknown): unknown[] => {
  const keeps = (document as { keeps?: unknown } | null | undefined)?.keeps;
  return Array.isArray(keeps) ? (keeps as unknown[]) : [];
};

/**
 * Records with their keeps in place. A key whose record is missing stays as it is, and is complained
 * of by whoever reads the document.
 */
export async function whole(
  records: readonly SheetRecord[],
  db: ReedDatabase,
): Promise<SheetRecord[]> {
  const keys = records.flatMap((r) => keysOf(r.document)).filter((k) => typeof k === 'string');
  if (keys.length === 0) return [...records];
  const found = new Map(
    (await db.keeps.bulkGet(keys)).flatMap((r) => (r ? [[r.key, r.keep] as const] : [])),
  );
  return records.map((record) => {
    const listed = keysOf(record.document);
    if (!listed.some((k) => typeof k === 'string')) return record;
    const keeps = listed.map((k) => (typeof k === 'string' ? (found.get(k) ?? k) : k));
    return { ...record, document: { ...(record.document as object), keeps } };
  });
}

/** A sheet was read from a record: its keeps are known to be stored. */
export function knowKeeps(record: SheetRecord, sheet: Sheet): void {
  const keys = keysOf(record.document);
  sheet.keeps.forEach((keep, i) => {
    const key = keys[i];
    if (typeof key === 'string') stored.set(keep, { sheet: sheet.id, key });
  });
}
