import { create } from 'zustand';
import { database, type ReedDatabase } from './database';
import { writeArchive } from './archive-out';
import { useBackup } from './backup';

/*
 * A folder on disk in which an archive of everything is kept up to date, where the browser lets a page
 * write into one. The browser asks the person; the folder is remembered with the rest.
 */

/** What the library of types does not know of yet. */
interface AskedFolder extends FileSystemDirectoryHandle {
  queryPermission(how: { mode: 'readwrite' }): Promise<PermissionState>;
  requestPermission(how: { mode: 'readwrite' }): Promise<PermissionState>;
}
type Picker = (how: { id: string; mode: 'readwrite' }) => Promise<AskedFolder>;

const picker = (): Picker | undefined =>
  (window as unknown as { showDirectoryPicker?: Picker }).showDirectoryPicker?.bind(window);

const FACT = 'folder';
export const FOLDER_FILE = 'jaunty-reed.zip';

export type FolderState =
  | { is: 'unknown' }
  /** This browser lets no page write into a folder. */
  | { is: 'impossible' }
  | { is: 'none' }
  /** Known, but the browser wants the person to allow it again. */
  | { is: 'asking'; name: string }
  | {
      is: 'kept';
      name: string;
      writtenAt: string | null;
      writing: boolean;
      problem: string | null;
    };

export const useFolder = create<{ folder: FolderState }>()(() => ({ folder: { is: 'unknown' } }));

const set = (folder: FolderState) => useFolder.setState({ folder });

let handle: AskedFolder | undefined;

/** Look which folder is remembered, and go on keeping it where that is allowed. */
export async function findFolder(db: ReedDatabase = database()): Promise<void> {
  if (useFolder.getState().folder.is !== 'unknown') return;
  if (!picker()) {
    set({ is: 'impossible' });
    return;
  }
  const fact = await db.facts.get(FACT);
  if (!fact) {
    set({ is: 'none' });
    return;
  }
  handle = fact.value as AskedFolder;
  const permission = await handle.queryPermission({ mode: 'readwrite' });
  if (permission === 'granted') keep(handle.name);
  else set({ is: 'asking', name: handle.name });
}

/** Let the person choose a folder; closing the browser’s window changes nothing. */
export async function chooseFolder(db: ReedDatabase = database()): Promise<void> {
  const pick = picker();
  if (!pick) return;
  let chosen: AskedFolder;
  try {
    chosen = await pick({ id: 'archive', mode: 'readwrite' });
  } catch (error) {
    if ((error as { name?: unknown }).name === 'AbortError') return;
    throw error;
  }
  handle = chosen;
  await db.facts.put({ name: FACT, value: chosen });
  keep(chosen.name);
}

/** Ask again for what was allowed before. */
export async function allowFolder(): Promise<void> {
  if (handle && (await handle.requestPermission({ mode: 'readwrite' })) === 'granted')
    keep(handle.name);
}

/** Keep it no longer; what lies in it stays. */
export async function forgetFolder(db: ReedDatabase = database()): Promise<void> {
  handle = undefined;
  clearTimeout(timer);
  timer = undefined;
  await db.facts.delete(FACT);
  set({ is: 'none' });
}

/** After a change it is written this soon, and no more often than so many times as long as it took. */
const SOON = 20_000;
const TIMES = 20;

let timer: ReturnType<typeof setTimeout> | undefined;
let tookMs = 0;
let writtenFor = '';

function keep(name: string): void {
  set({ is: 'kept', name, writtenAt: null, writing: false, problem: null });
  void writeWhenChanged();
}

/** Write now if anything is other than when it was last written, and look again later. */
async function writeWhenChanged(): Promise<void> {
  clearTimeout(timer);
  await writeFolder().catch(() => undefined);
  if (useFolder.getState().folder.is === 'kept')
    timer = setTimeout(() => void writeWhenChanged(), Math.max(SOON, TIMES * tookMs));
}

/** What tells whether anything was changed: counts, and when lines and sheets were last written. */
async function stampOf(db: ReedDatabase): Promise<string> {
  const [line, sheet, ...counts] = await Promise.all([
    db.book.orderBy('touched').last(),
    db.sheets.orderBy('updatedAt').last(),
    db.sheets.count(),
    db.takes.count(),
    db.drivers.count(),
    db.drawer.count(),
    db.pictures.count(),
  ]);
  return JSON.stringify([line?.touched, sheet?.updatedAt, sheet?.revision, counts]);
}

/** Write the archive, unless it is already of the present state. A file that is half written replaces none. */
export async function writeFolder(db: ReedDatabase = database()): Promise<void> {
  const { folder } = useFolder.getState();
  if (!handle || folder.is !== 'kept' || folder.writing) return;
  const stamp = await stampOf(db);
  if (stamp === writtenFor && folder.writtenAt !== null) return;
  set({ ...folder, writing: true });
  const from = performance.now();
  try {
    const file = await handle.getFileHandle(FOLDER_FILE, { create: true });
    const chunks: Uint8Array<ArrayBuffer>[] = [];
    const { madeAt } = await writeArchive((chunk) => chunks.push(chunk), undefined, db);
    // What is written takes the place of what was there when it is closed, and not before.
    const writable = await file.createWritable();
    await writable.write(new Blob(chunks));
    await writable.close();
    writtenFor = stamp;
    tookMs = performance.now() - from;
    useBackup.setState({ lastAt: madeAt, putOffUntil: null });
    ended({ writtenAt: madeAt, problem: null });
  } catch {
    ended({
      problem: 'The folder could not be written: it may be gone, full, or no longer allowed.',
    });
  }
}

/** It may have been given up, or another chosen, while it was written. */
function ended(change: { writtenAt?: string; problem: string | null }): void {
  const { folder } = useFolder.getState();
  if (folder.is === 'kept') set({ ...folder, writing: false, ...change });
}
