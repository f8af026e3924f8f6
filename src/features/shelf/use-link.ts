import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { messageOf } from '@/core/errors';
import { sheetOfLink } from '@/core/sheet/link';
import { addFiles, shelfReady } from '@/store/sheets';
import { whyNotMade } from '@/store/problems';
import { sheetAddress } from '../shell/sheet-address';
import { refuse, tell } from '../shell/tell';

/** A link that holds a sheet was opened: the sheet goes onto the shelf, once, and is opened. */
export function useLink(): void {
  const router = useRouter();
  useEffect(() => {
    const open = async (fragment: string) => {
      let file;
      try {
        file = sheetOfLink(fragment);
      } catch (error) {
        clear();
        refuse(messageOf(error));
        return;
      }
      if (!file) return;
      // Before it is stored: opened again it would be a second one.
      clear();
      try {
        await shelfReady().catch(() => undefined);
        const [sheet] = await addFiles([file]);
        tell(`“${sheet.title}” is on your shelf.`);
        router.push(sheetAddress(sheet.id));
      } catch (error) {
        refuse(whyNotMade(error));
      }
    };
    const look = () => void open(location.hash);
    look();
    window.addEventListener('hashchange', look);
    return () => window.removeEventListener('hashchange', look);
  }, [router]);
}

const clear = () => history.replaceState(history.state, '', location.pathname);
