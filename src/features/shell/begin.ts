import { shelfReady } from '@/store/ready';
import { readCardsAhead } from '../shelf/use-cards';

/**
 * What takes time and needs no screen begins before the first screen is built: the database, and the
 * cards of the shelf. A sheet begins itself (sheet/begin-sheet.ts): what reads it is large, and other
 * screens do without.
 *
 * @param path of the page's address
 */
export function begin(path: string): void {
  shelfReady().catch(() => undefined); // said where the shell waits for it
  if (path === '/') readCardsAhead();
}
