import type { RigBoard } from '@/core/bench/rig-board';
import { USUAL_CONVERTERS } from '@/core/rig/sweep-rig';
import type { Sheet } from '@/core/sheet/schema';
import { peakOf } from '@/core/sweep/impulse';
import { engine } from '@/workers/engine';
import { Stopped, type AudioRig } from './audio-rig';

let turn = 0;

/** The stand-in for a sound card and a board: nothing sounds, and nothing can be hurt. */
export function simulatedRig(sheet: Sheet, board: RigBoard): AudioRig {
  return {
    rate: USUAL_CONVERTERS.rate,
    async play(samples, { through, times, signal, onPeak }) {
      turn = (turn + times) % 1000;
      try {
        const input = { sheet, board, through, samples, times, turn };
        const recordings = await engine().run('playBoard', input, { signal });
        onPeak(peakOf(recordings[0].samples));
        return recordings;
      } catch (error) {
        throw signal.aborted ? new Stopped() : error;
      }
    },
    close: () => undefined,
  };
}
