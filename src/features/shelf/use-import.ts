import { useCallback, useState } from 'react';
import { DOCUMENT_LIMITS } from '@/core/document/bounded';
import { ReedError } from '@/core/errors';
import { readSheetsText } from '@/core/sheet/read';
import { cut } from '@/core/text';
import { storageProblem } from '@/store/problems';
import { addSheet } from '@/store/sheets';
import { tell } from '../shell/tell';

/** Refusals that are listed; of a longer list the rest is counted. */
const MOST_SAID = 12;

/** Sheets from files: each is taken whole or not at all, and what is not taken is said. */
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
        for (const sheet of readSheetsText(await file.text())) {
          if (sheet instanceof ReedError) fail(sheet);
          else {
            await addSheet(sheet);
            done++;
          }
        }
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
