import { openSheet } from '@/store/session-storage';
import { shelfReady } from '@/store/sheets';
import { followOpenSheet } from '../sheet/evaluations';

/**
 * What takes time and needs no screen begins before the first screen is built: the database, and the
 * sheet that the address names with its first evaluation.
 *
 * @param path of the page's address
 */
export function begin(path: string): void {
  shelfReady().catch(() => undefined); // said where the shell waits for it
  const id = sheetIn(path);
  if (id === undefined) return;
  followOpenSheet();
  void openSheet(id);
}

/** The id in the address of a sheet; an address that means nothing is the server's to refuse. */
export function sheetIn(path: string): string | undefined {
  const id = /^\/sheet\/([^/]+)\/?$/.exec(path)?.[1];
  try {
    return id === undefined ? undefined : decodeURIComponent(id);
  } catch {
    return undefined;
  }
}
