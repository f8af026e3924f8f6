import { useCallback, useState } from 'react';
import { DOCUMENT_LIMITS, parseBounded } from '@/core/document/bounded';
import { ReedError } from '@/core/errors';
import { readSheetsText } from '@/core/sheet/read';
import type { Sheet } from '@/core/sheet/schema';
import { carriesCircuit, sheetOfCircuit } from '@/core/sheet/sheet-of-circuit';
import { cut } from '@/core/text';
import { newId, now } from '@/store/ids';
import { storageProblem } from '@/store/problems';
import { addSheets } from '@/store/sheets';
import { tell } from '../shell/tell';

/** Refusals that are listed; of a longer list the rest is counted. */
const MOST_SAID = 12;

/** The sheets of a file; a circuit file becomes a sheet with a stage of its own. */
function sheetsIn(text: string, name: string): (Sheet | ReedError)[] {
  const document = parseBounded(text, 'a sheet or a circuit file was expected');
  return carriesCircuit(document)
    ? [sheetOfCircuit(document, newId('s'), now(), name)]
    : readSheetsText(text);
}

/** Sheets from files: all that can be read of a file is taken, or nothing where there is no room. */
export function useImport() {
  const [problems, setProblems] = useState<string[]>([]);
  const importFiles = useCallback(async (files: readonly File[]) => {
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
        const sheets = read.flatMap((sheet) => (sheet instanceof ReedError ? [] : [sheet]));
        await addSheets(sheets);
        done += sheets.length;
        for (const sheet of read) if (sheet instanceof ReedError) fail(sheet);
      } catch (error) {
        fail(error);
      }
    }
    const more = failed.length - MOST_SAID;
    setProblems(more > 0 ? [...failed.slice(0, MOST_SAID), `and ${more} more.`] : failed);
    if (done > 0) tell(done === 1 ? 'Imported one sheet' : `Imported ${done} sheets`);
  }, []);
  return { importFiles, problems, dismiss: useCallback(() => setProblems([]), []) };
}
