import { parseBounded } from '@/core/document/bounded';
import { ReedError } from '@/core/errors';
import { EMPTY_LIBRARY, LIBRARY_TABLES, readLibrary, type Library } from '@/core/library';
import { readSheet } from './read';
import { referredTo } from './references';
import type { Sheet } from './schema';

/** A sheet and the entries of the library that it brings along: all that a file of one sheet holds. */
export interface SheetFile {
  sheet: Sheet;
  along: Library;
}

/**
 * A sheet as a document that can be read anywhere: the sheet's own, and under `along` what it refers
 * to. A sheet that refers to nothing is written as it is.
 *
 * @param library entries from which those that it refers to are taken
 */
export function fileOf(
  sheet: Sheet,
  library: Library = EMPTY_LIBRARY,
): Sheet & { along?: unknown } {
  const along = referredTo(sheet, library);
  const told = LIBRARY_TABLES.filter((table) => along[table].length > 0);
  if (told.length === 0) return sheet;
  return { ...sheet, along: Object.fromEntries(told.map((table) => [table, along[table]])) };
}

/**
 * Check and read a document written by `fileOf`.
 *
 * @throws ReedError `document` naming the field and what is wrong with it; nothing is half-read
 */
export function readSheetFile(document: unknown): SheetFile {
  if (typeof document !== 'object' || document === null || !('along' in document))
    return { sheet: readSheet(document), along: EMPTY_LIBRARY };
  const { along, ...sheet } = document;
  return { sheet: readSheet(sheet), along: readLibrary(along) };
}

/**
 * Read the text of a file of one sheet, or of a whole shelf: a list of sheets, each read or refused by
 * itself.
 *
 * @returns in the file's order; a refusal names the sheet's place in the list
 * @throws ReedError `document` when the text is no such file
 */
export function readSheetFiles(text: string): (SheetFile | ReedError)[] {
  const document = parseBounded(text, 'a sheet file exported from here was expected');
  if (!Array.isArray(document)) return [readSheetFile(document)];
  return document.map((entry, i) => {
    try {
      return readSheetFile(entry);
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      return new ReedError(error.code, `Sheet ${i + 1} of the list: ${error.message}`, error.place);
    }
  });
}
