import { liveQuery } from 'dexie';
import { useEffect, useState } from 'react';
import { driversContents, type DriversContents } from '@/store/drivers';
import { storageProblem } from '@/store/problems';
import { shelfReady } from '@/store/ready';

/** The loudspeaker units, whoever changes them; nothing until they have been read. */
export function useDrivers(): { contents: DriversContents | null; problem: string | null } {
  const [contents, setContents] = useState<DriversContents | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const tell = (error: unknown) => setProblem(storageProblem(error));
    // Those of the demo come with its sheets.
    void shelfReady().catch(tell);
    const watching = liveQuery(() => driversContents()).subscribe({
      next: (found) => {
        setContents(found);
        setProblem(null);
      },
      error: tell,
    });
    return () => watching.unsubscribe();
  }, []);
  return { contents, problem };
}
