import { DOCUMENT_LIMITS, parseBounded } from '@/core/document/bounded';
import { ReedError } from '@/core/errors';
import { EMPTY_LIBRARY } from '@/core/library';
import { readSheetFiles, type SheetFile } from '@/core/sheet/file';
import { carriesCircuit, sheetOfCircuit } from '@/core/sheet/sheet-of-circuit';
import { cut } from '@/core/text';
import { newId, now } from '@/store/ids';
import { storageProblem } from '@/store/problems';
import { addFiles } from '@/store/sheets';

/** The sheets of a file; a circuit file becomes a sheet with a stage of its own. */
function sheetsIn(text: string, name: string): (SheetFile | ReedError)[] {
  const document = parseBounded(text, 'a sheet or a circuit file was expected');
  return carriesCircuit(document)
    ? [{ sheet: sheetOfCircuit(document, newId('s'), now(), name), along: EMPTY_LIBRARY }]
    : readSheetFiles(text);
}

/**
 * Put the sheets of files onto the shelf: all that can be read of a file is taken, or nothing where
 * there is no room.
 *
 * @returns how many were taken, and a sentence for each thing that was not
 */
export async function importFrom(
  files: readonly File[],
): Promise<{ done: number; failed: string[] }> {
  const failed: string[] = [];
  let done = 0;
  for (const file of files) {
    const fail = (error: unknown) =>
      failed.push(
        `${cut(file.name, 60)}: ${error instanceof ReedError ? error.message : `${storageProblem(error)}.`}`,
      );
    try {
      if (file.size > 2 * DOCUMENT_LIMITS.length)
        throw new ReedError('document', 'The file is far larger than any sheet.');
      const read = sheetsIn(await file.text(), cut(file.name.replace(/\.[^.]*$/, ''), 100));
      const files = read.flatMap((file) => (file instanceof ReedError ? [] : [file]));
      await addFiles(files);
      done += files.length;
      for (const file of read) if (file instanceof ReedError) fail(file);
    } catch (error) {
      fail(error);
    }
  }
  return { done, failed };
}
