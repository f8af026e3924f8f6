import { liveQuery } from 'dexie';
import { useEffect, useState } from 'react';
import { drawerContents, type DrawerContents } from '@/store/drawer';
import { storageProblem } from '@/store/problems';

/** What lies in the drawer, whoever changes it; nothing until it has been read. */
export function useDrawer(): { contents: DrawerContents | null; problem: string | null } {
  const [contents, setContents] = useState<DrawerContents | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const watching = liveQuery(() => drawerContents()).subscribe({
      next: (found) => {
        setContents(found);
        setProblem(null);
      },
      error: (error: unknown) => setProblem(storageProblem(error)),
    });
    return () => watching.unsubscribe();
  }, []);
  return { contents, problem };
}
