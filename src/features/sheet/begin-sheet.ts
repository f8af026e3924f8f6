import { openSheet } from '@/store/session-storage';
import { sheetAddress, sheetIn } from '../shell/sheet-address';
import { followOpenSheet } from './evaluations';

/**
 * Begin to open the sheet that the address names, with its first evaluation, before there is a screen
 * to show it.
 *
 * @param path of the page's address; where it names no sheet, nothing is begun
 */
export function beginSheet(path: string): void {
  const id = sheetIn(path);
  if (id === undefined || path.replace(/\/$/, '') !== sheetAddress(id)) return;
  followOpenSheet();
  void openSheet(id);
}
