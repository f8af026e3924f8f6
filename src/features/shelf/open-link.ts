import { messageOf } from '@/core/errors';
import { sheetOfLink } from '@/core/sheet/link';
import { whyNotMade } from '@/store/problems';
import { shelfReady } from '@/store/ready';
import { addFiles } from '@/store/sheets';
import { sheetAddress } from '../shell/sheet-address';
import { refuse, tell } from '../shell/tell';

/**
 * Put the sheet that a link holds onto the shelf, and open it.
 *
 * @param fragment of the address; where it holds no sheet nothing is done
 * @param clear takes the fragment off the address: opened again it would be a second sheet
 */
export async function openLink(
  fragment: string,
  clear: () => void,
  show: (address: string) => void,
): Promise<void> {
  let file;
  try {
    file = sheetOfLink(fragment);
  } catch (error) {
    clear();
    refuse(messageOf(error));
    return;
  }
  if (!file) return;
  // Before it is stored.
  clear();
  try {
    await shelfReady().catch(() => undefined);
    const [sheet] = await addFiles([file]);
    tell(`“${sheet.title}” is on your shelf.`);
    show(sheetAddress(sheet.id));
  } catch (error) {
    refuse(whyNotMade(error));
  }
}
