// Run by the framework in the browser before anything is rendered. What takes a while to stand begins
// here, before the page's own code has arrived: the engine's worker where a sheet is opened, and the
// browser's store, which opens its files at the first question, whatever is asked. Other screens show
// what is stored, and have both cores for it; the shell begins their engine when they stand.
import { sheetIn } from '@/features/shell/sheet-address';
import { engine } from '@/workers/engine';

if (sheetIn(location.pathname) !== undefined) engine();
try {
  void indexedDB.databases().catch(() => undefined);
} catch {
  // Refused, or not there at all: said where the sheets are read.
}
