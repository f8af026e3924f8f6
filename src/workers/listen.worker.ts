import type { ToPlayer } from './listen-messages';
import { ListenPlayer } from './listen-player';

// A message to oneself comes after all that wait, and sooner than any timer.
const turn = new MessageChannel();
let next: (() => void) | undefined;
turn.port1.onmessage = () => next?.();

const player = new ListenPlayer(
  (state) => self.postMessage(state),
  (run) => {
    next = run;
    turn.port2.postMessage(null);
  },
);
self.onmessage = (event: MessageEvent<ToPlayer>) => player.hear(event.data);
