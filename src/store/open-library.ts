import { liveQuery, type Subscription } from 'dexie';
import { useMemo } from 'react';
import { create } from 'zustand';
import { EMPTY_LIBRARY, LIBRARY_TABLES, type Library } from '@/core/library';
import { referencesOf, refersToNothing, withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { libraryFor, type Found } from './library';
import { sheetOf, useSession, type SheetContent } from './session-state';

/*
 * What the open sheet refers to, as the library has it now, whoever changes it.
 */

export interface OpenLibrary extends Found {
  /** True from the opening of a sheet that refers to something until that is at hand. */
  loading: boolean;
}

const NOTHING: OpenLibrary = { library: EMPTY_LIBRARY, problems: [], loading: false };

export const useOpenLibrary = create<OpenLibrary>()(() => NOTHING);

let following = false;
let asked = '';
let watching: Subscription | undefined;

/** From now on have at hand what the open sheet refers to. */
export function followOpenLibrary(): void {
  if (following) return;
  following = true;
  const look = (content: SheetContent | null) => {
    const sheet = sheetOf({ ...useSession.getState(), content });
    const references = sheet && referencesOf(sheet);
    const key = references
      ? JSON.stringify(LIBRARY_TABLES.map((table) => [...references[table]]))
      : '';
    if (key === asked) return;
    asked = key;
    watching?.unsubscribe();
    watching = undefined;
    if (!sheet || !references || refersToNothing(references)) {
      useOpenLibrary.setState(NOTHING);
      return;
    }
    useOpenLibrary.setState({ loading: true });
    watching = liveQuery(() => libraryFor([sheet])).subscribe({
      next: (found) => useOpenLibrary.setState({ ...found, loading: false }),
      error: () => useOpenLibrary.setState(NOTHING),
    });
  };
  look(useSession.getState().content);
  useSession.subscribe((after, before) => {
    if (after.content !== before.content) look(after.content);
  });
}

/** The open sheet as it is solved: with the models of the loudspeakers that its ways end in. */
export const solvedSheet = (
  sheet: Sheet,
  library: Library = useOpenLibrary.getState().library,
): Sheet => withDrivers(sheet, library.drivers);

/** `solvedSheet`, the same object as long as nothing in it changed. */
export function useSolvedSheet<S extends Sheet | null>(sheet: S): S {
  const { library } = useOpenLibrary();
  return useMemo(
    () => (sheet === null ? sheet : (solvedSheet(sheet, library) as S)),
    [sheet, library],
  );
}
