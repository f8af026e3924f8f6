// Run by the framework in the browser before anything is rendered: the engine's worker, which takes a
// while to stand, begins before the page's own code has arrived.
import { engine } from '@/workers/engine';

engine();
