import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { followOtherTabs } from './other-tabs';
import { database, type ReedDatabase } from './database';

interface BackupState {
  /** When an archive was last made from this browser, ISO. */
  lastAt: string | null;
  /** Until when nobody wants to be reminded, ISO. */
  putOffUntil: string | null;
}

const KEY = 'jaunty-reed-backup';

/** When everything was last saved elsewhere; kept in this browser. */
export const useBackup = create<BackupState>()(
  persist((): BackupState => ({ lastAt: null, putOffUntil: null }), {
    name: KEY,
    version: 1,
  }),
);

followOtherTabs(useBackup, KEY);

const DAY = 24 * 3600_000;
/** A reminder comes after so long, where so many lines were written since. */
const AFTER_DAYS = 14;
const LINES = 15;
export const PUT_OFF_DAYS = 7;

/** Whether it is time to save everything elsewhere, quietly said. */
export async function isBackupDue(
  { lastAt, putOffUntil }: BackupState,
  at: number = Date.now(),
  db: ReedDatabase = database(),
): Promise<boolean> {
  if (putOffUntil !== null && Date.parse(putOffUntil) > at) return false;
  const first = lastAt ?? (await db.book.orderBy('at').first())?.at;
  if (first === undefined || at - Date.parse(first) < AFTER_DAYS * DAY) return false;
  const since = db.book.where('at').above(lastAt ?? '');
  return (await since.limit(LINES).count()) >= LINES;
}

/** Not to be reminded for a while. */
export function putBackupOff(at: number = Date.now()): void {
  useBackup.setState({ putOffUntil: new Date(at + PUT_OFF_DAYS * DAY).toISOString() });
}
