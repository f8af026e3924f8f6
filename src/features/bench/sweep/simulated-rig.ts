import type { RigBoard } from '@/core/bench/rig-board';
import { USUAL_CONVERTERS } from '@/core/rig/sweep-rig';
import type { Sheet } from '@/core/sheet/schema';
import { engine } from '@/workers/engine';
import { Stopped, type AudioRig } from './audio-rig';

let turn = 0;

/** The stand-in for a sound card and a board: nothing sounds, and nothing can be hurt. */
export function simulatedRig(sheet: Sheet, board: RigBoard): AudioRig {
  return {
    rate: USUAL_CONVERTERS.rate,
    async play(samples, { through, signal, onPeak }) {
      turn = (turn + 1) % 1000;
      try {
        const input = { sheet, board, through, samples, turn };
        const recording = await engine().run('playBoard', input, { signal });
        onPeak(recording.samples.reduce((most, v) => Math.max(most, Math.abs(v)), 0));
        return recording;
      } catch (error) {
        throw signal.aborted ? new Stopped() : error;
      }
    },
    close: () => undefined,
  };
}
