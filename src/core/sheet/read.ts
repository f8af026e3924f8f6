import { firstIssue } from '@/core/circuit/schema';
import { ReedError, messageOf } from '@/core/errors';
import { topologyOf } from '@/core/topologies';
import { valuedParts } from '@/core/topologies/instantiate';
import { SHEET_VERSION, sheetSchema, type Sheet } from './schema';

type Migration = (document: Record<string, unknown>) => Record<string, unknown>;

/**
 * What turns a sheet of version n into one of version n + 1, by n. Documents of any age pass
 * through here, from the database and from files alike.
 */
export const SHEET_MIGRATIONS: Readonly<Record<number, Migration>> = {};

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
  if (typeof document !== 'object' || document === null || Array.isArray(document)) {
    throw new ReedError(
      'document',
      'This is not a sheet: a JSON object with the field “format” was expected.',
    );
  }
  let sheet = document as Record<string, unknown>;
  if (sheet.format !== 'jaunty-reed/sheet') {
    const given =
      sheet.format === undefined
        ? 'it has no “format” field'
        : `its format is ${JSON.stringify(sheet.format)}`;
    throw new ReedError(
      'document',
      `This is not a sheet: ${given}, and “jaunty-reed/sheet” was expected.`,
      { path: 'format' },
    );
  }
  const version = sheet.version;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw new ReedError(
      'document',
      `The sheet’s version is ${JSON.stringify(version) ?? 'missing'}: a whole number from 1 was expected.`,
      { path: 'version' },
    );
  }
  if (version > current) {
    throw new ReedError(
      'document',
      `The sheet is of version ${version} and this program reads up to ${current}: update the program.`,
      { path: 'version' },
    );
  }
  for (let v = version; v < current; v++) sheet = { ...migrations[v](sheet), version: v + 1 };
  return sheet;
}

/**
 * Check and read a sheet, from a file or from the database.
 *
 * @throws ReedError `document` naming the field and what is wrong with it; nothing is half-read
 */
export function readSheet(document: unknown): Sheet {
  const migrated = migrateSheet(document);
  const result = sheetSchema.safeParse(migrated);
  if (!result.success) {
    const { path, message } = firstIssue(result.error, migrated);
    throw new ReedError('document', `The sheet cannot be read at “${path}”: ${message}.`, { path });
  }
  const sheet = result.data;
  if (!(sheet.view.fromHz < sheet.view.toHz)) {
    throw new ReedError(
      'document',
      'The sheet cannot be read at “view”: fromHz must be below toHz.',
      { path: 'view' },
    );
  }
  checkStages(sheet.ways, 'ways');
  if (sheet.bank && sheet.bank.channels.some((c, i) => c.id !== sheet.ways[i]?.id))
    throw new ReedError(
      'document',
      'The sheet cannot be read at “bank”: its channels must be the ways, in the same order.',
      { path: 'bank' },
    );
  sheet.keeps.forEach((keep, i) => checkStages(keep.design.ways, `keeps[${i}].design.ways`));
  return sheet;
}

/** Stages must name known topologies and give every part of them a value, and only those. */
function checkStages(ways: Sheet['ways'], at: string): void {
  ways.forEach((way, w) => {
    const seen = new Set<string>();
    way.stages.forEach((stage, s) => {
      const path = `${at}[${w}].stages[${s}]`;
      const fail = (message: string) =>
        new ReedError('document', `The sheet cannot be read at “${path}”: ${message}.`, { path });
      if (seen.has(stage.id)) throw fail(`a second stage is called “${stage.id}”`);
      seen.add(stage.id);
      let known: string[];
      try {
        known = valuedParts(topologyOf(stage.topology)).map((p) => p.id);
      } catch (error) {
        throw fail(messageOf(error).replace(/\.$/, ''));
      }
      const missing = known.find((part) => !(part in stage.values));
      if (missing) throw fail(`the value of ${missing} is missing`);
      const extra = Object.keys(stage.values).find((part) => !known.includes(part));
      if (extra) throw fail(`the topology has no part ${extra}`);
    });
  });
}

/** Read a sheet from the text of a file. */
export function readSheetText(text: string): Sheet {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new ReedError(
      'document',
      `The file is not JSON (${messageOf(error)}). A sheet file exported from here was expected.`,
    );
  }
  return readSheet(document);
}
