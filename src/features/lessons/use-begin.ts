import { sheetOfLesson } from '@/store/lesson-sheets';
import { shelfReady } from '@/store/ready';
import { useGo } from '../shell/leave-guard';
import { sheetAddress } from '../shell/sheet-address';
import { attemptStored } from '../shell/tell';

/** Opens the sheet of a lesson; a fresh one where there is none, or where that is asked for. */
export function useBegin(): (lesson: string, anew?: boolean) => void {
  const go = useGo();
  return (lesson, anew = false) =>
    void attemptStored('The lesson was not begun', async () => {
      await shelfReady();
      go(sheetAddress(await sheetOfLesson(lesson, anew)));
    });
}
