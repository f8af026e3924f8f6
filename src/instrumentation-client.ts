// Run by the framework in the browser before anything is rendered. What takes a while to stand begins
// here, before the page's own code has arrived: the engine's worker, and the browser's store, which
// opens its files at the first question, whatever is asked.
import { engine } from '@/workers/engine';

engine();
try {
  void indexedDB.databases().catch(() => undefined);
} catch {
  // Refused, or not there at all: said where the sheets are read.
}
