import { storedDocuments } from '@/store/sheets';
import { download } from '@/ui/download';

/** Hand over everything that is stored, as one file that can be imported again. */
export async function exportShelf(): Promise<void> {
  download('shelf.json', JSON.stringify(await storedDocuments(), null, 1), 'application/json');
}
