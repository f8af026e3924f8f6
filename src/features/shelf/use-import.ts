import { useCallback, useState } from 'react';
import { attemptStored, tell } from '../shell/tell';

/** Refusals that are listed; of a longer list the rest is counted. */
const MOST_SAID = 12;

/** Sheets from files, and what could not be taken of them. What reads them is fetched when it is wanted. */
export function useImport() {
  const [problems, setProblems] = useState<string[]>([]);
  const importFiles = useCallback(async (files: readonly File[]) => {
    await attemptStored('Nothing was imported', async () => {
      const { importFrom } = await import('./import-files');
      const { done, failed } = await importFrom(files);
      const more = failed.length - MOST_SAID;
      setProblems(more > 0 ? [...failed.slice(0, MOST_SAID), `and ${more} more.`] : failed);
      if (done > 0) tell(done === 1 ? 'Imported one sheet' : `Imported ${done} sheets`);
    });
  }, []);
  return { importFiles, problems, dismiss: useCallback(() => setProblems([]), []) };
}
