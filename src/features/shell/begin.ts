import { openSheet } from '@/store/session-storage';
import { shelfReady } from '@/store/sheets';
import { readCardsAhead } from '../shelf/use-cards';
import { followOpenSheet } from '../sheet/evaluations';
import { sheetAddress, sheetIn } from './sheet-address';

/**
 * What takes time and needs no screen begins before the first screen is built: the database, the cards
 * of the shelf, and the sheet that the address names with its first evaluation.
 *
 * @param path of the page's address
 */
export function begin(path: string): void {
  shelfReady().catch(() => undefined); // said where the shell waits for it
  if (path === '/') readCardsAhead();
  const id = sheetIn(path);
  if (id === undefined || path.replace(/\/$/, '') !== sheetAddress(id)) return;
  followOpenSheet();
  void openSheet(id);
}
