import { EMPTY_LIBRARY } from '@/core/library';
import { fileOf } from '@/core/sheet/file';
import type { Sheet } from '@/core/sheet/schema';
import { libraryFor } from '@/store/library';
import { download, fileName } from '@/ui/download';
import { refuse } from '../shell/tell';

/**
 * Hand a sheet over as a file that can be imported again, with what it refers to. What of that is not
 * to be had is said; the sheet itself is handed over all the same, also where nothing can be read
 * from the store any more.
 */
export async function sheetFile(sheet: Sheet): Promise<void> {
  const { library, problems } = await libraryFor([sheet]).catch(() => ({
    library: EMPTY_LIBRARY,
    problems: ['What it refers to could not be read from this browser’s store.'],
  }));
  const text = JSON.stringify(fileOf(sheet, library), null, 2);
  download(fileName(sheet.title, 'sheet.json'), text, 'application/json');
  if (problems.length > 0) refuse(`Exported without something that belongs to it: ${problems[0]}`);
}

/** Hand over what is stored of a sheet that cannot be read, under whatever name is legible. */
export function damagedFile(title: string, id: string, document: unknown): void {
  let text: string;
  try {
    text = JSON.stringify(document, null, 2) ?? '';
  } catch {
    text = String(document);
  }
  download(fileName(`${title || 'sheet'} damaged ${id}`, 'json'), text, 'application/json');
}
