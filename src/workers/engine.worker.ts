import * as Comlink from 'comlink';
import { EngineWorker } from './engine-worker';

Comlink.expose(new EngineWorker((call) => self.postMessage({ heard: call })));
self.postMessage({ ready: true });
