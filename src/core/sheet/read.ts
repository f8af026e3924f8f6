import { checkBounds } from '@/core/document/bounded';
import { firstIssue } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { designFault, repeatedId } from './faults';
import { fromVersion1 } from './migrate-1';
import { SHEET_LIMITS } from './limits';
import { SHEET_VERSION, sheetSchema, type Sheet } from './schema';

type Migration = (document: Record<string, unknown>) => Record<string, unknown>;

/**
 * What turns a sheet of version n into one of version n + 1, by n. Documents of any age pass
 * through here, from the database and from files alike.
 */
export const SHEET_MIGRATIONS: Readonly<Record<number, Migration>> = { 1: fromVersion1 };

const foreign = (why: string, path?: string) =>
  new ReedError('document', `This is not a sheet: ${why}.`, path === undefined ? {} : { path });

/**
 * Bring a document up to the present version.
 *
 * @throws ReedError `document` when it is no sheet, or newer than this program
 */
export function migrateSheet(
  document: unknown,
  migrations: Readonly<Record<number, Migration>> = SHEET_MIGRATIONS,
  current: number = SHEET_VERSION,
): unknown {
  if (typeof document !== 'object' || document === null || Array.isArray(document))
    throw foreign('a JSON object with the field “format” was expected');
  let sheet = document as Record<string, unknown>;
  const { format, version } = sheet;
  if (format === undefined)
    throw foreign('it has no field “format”, and “jaunty-reed/sheet” was expected there', 'format');
  if (format !== 'jaunty-reed/sheet')
    throw foreign(
      `its format is ${typeof format === 'string' ? quoted(format) : 'no text'}, and “jaunty-reed/sheet” was expected`,
      'format',
    );
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw new ReedError(
      'document',
      `The sheet’s version is ${version === undefined ? 'missing' : 'not understood'}: a whole number from 1 was expected.`,
      { path: 'version' },
    );
  if (version > current)
    throw new ReedError(
      'document',
      `The sheet is of version ${version} and this program reads up to ${current}: update the program.`,
      { path: 'version' },
    );
  for (let v = version; v < current; v++) sheet = { ...migrations[v](sheet), version: v + 1 };
  return sheet;
}

/** Whether a document was written by a newer program, which only that can read. */
export function isNewer(document: unknown): boolean {
  if (typeof document !== 'object' || document === null) return false;
  const { format, version } = document as { format?: unknown; version?: unknown };
  return format === 'jaunty-reed/sheet' && typeof version === 'number' && version > SHEET_VERSION;
}

/**
 * Check and read a sheet, from a file or from the database.
 *
 * @throws ReedError `document` naming the field and what is wrong with it; nothing is half-read
 */
export function readSheet(document: unknown): Sheet {
  checkBounds(document);
  const migrated = migrateSheet(document);
  const result = sheetSchema.safeParse(migrated);
  const fault = result.success
    ? sheetFault(result.data, () => false)
    : firstIssue(result.error, migrated);
  if (fault) {
    const { path, message } = fault;
    throw new ReedError(
      'document',
      path === ''
        ? `The sheet cannot be read: it ${message}.`
        : `The sheet cannot be read at ${quoted(path)}: ${message}.`,
      { path },
    );
  }
  return result.data!;
}

/** What is wrong with a sheet beyond its single fields; keeps that are known to be sound are skipped. */
export function sheetFault(
  sheet: Sheet,
  isSound: (keep: Sheet['keeps'][number]) => boolean,
): { path: string; message: string } | null {
  if (!(sheet.view.fromHz < sheet.view.toHz))
    return { path: 'view', message: 'fromHz must be below toHz' };
  const own = designFault(sheet, '') ?? repeatedId(sheet.keeps, 'keeps', 'keep');
  if (own) return own;
  let stages = 0;
  for (const { ways } of [sheet, ...sheet.keeps.map((k) => k.design)])
    for (const way of ways) stages += way.stages.length;
  if (stages > SHEET_LIMITS.allStages)
    return {
      path: 'keeps',
      message: `the sheet and its keeps hold at most ${SHEET_LIMITS.allStages} stages together: remove a keep first`,
    };
  for (const [i, keep] of sheet.keeps.entries()) {
    const fault = isSound(keep) ? null : designFault(keep.design, `keeps[${i}].design.`);
    if (fault) return fault;
  }
  return null;
}
