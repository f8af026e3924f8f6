import type { Sheet } from '@/core/sheet/schema';
import { download, fileName } from '@/ui/download';

/** Hand a sheet over as a file that can be imported again. */
export function sheetFile(sheet: Sheet): void {
  download(fileName(sheet.title, 'sheet.json'), JSON.stringify(sheet, null, 2), 'application/json');
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
