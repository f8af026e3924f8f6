import { useCallback, useState } from 'react';
import { DOCUMENT_LIMITS } from '@/core/document/bounded';
import { ReedError } from '@/core/errors';
import { readSheetText } from '@/core/sheet/read';
import { cut } from '@/core/text';
import { storageProblem } from '@/store/problems';
import { addSheet } from '@/store/sheets';
import { tell } from '../shell/tell';

/** Sheets from files: each is taken whole or not at all, and what is not taken is said. */
export function useImport() {
  const [problems, setProblems] = useState<string[]>([]);
  const importFiles = useCallback(async (files: readonly File[]) => {
    const failed: string[] = [];
    let done = 0;
    for (const file of files) {
      try {
        if (file.size > 2 * DOCUMENT_LIMITS.length)
          throw new ReedError('document', 'The file is far larger than any sheet.');
        await addSheet(readSheetText(await file.text()));
        done++;
      } catch (error) {
        failed.push(
          `${cut(file.name, 60)}: ${error instanceof ReedError ? error.message : `${storageProblem(error)}.`}`,
        );
      }
    }
    setProblems(failed);
    if (done > 0) tell(done === 1 ? 'Imported one sheet' : `Imported ${done} sheets`);
  }, []);
  return { importFiles, problems, dismiss: useCallback(() => setProblems([]), []) };
}
