import { SLICE } from '@/core/listen/heard';
import { CELLS } from '@/core/cells';
import { HeardCircuit } from '@/core/listen/heard-circuit';
import { Oscillator } from '@/core/listen/oscillator';
import { voiceSheet } from '@/core/sheet/voice';
import { report } from './measure';

const RATE = 48_000;
const SECONDS = 2;

/** Of one core, what each cell takes to be heard at 48 kHz with a saw of five volts: steps and halving. */
export function benchListen(): void {
  for (const cell of CELLS)
    for (const times of [4, 8]) {
      const sheet = voiceSheet({
        id: 'bench',
        title: cell.name,
        at: new Date(0).toISOString(),
        cell,
        ...cell.usual,
        source: { name: 'Oscillator', ohms: 1000, volts: 5 },
        load: { name: 'Amplifier in', ohms: 47_000 },
      });
      const circuit = new HeardCircuit(sheet, 0, RATE, times);
      const oscillator = new Oscillator('saw', RATE * times);
      const input = new Float64Array(SLICE * times);
      const output = new Float64Array(SLICE);
      const shares = Array.from({ length: 6 }, () => {
        const from = performance.now();
        for (let k = 0; k < (SECONDS * RATE) / SLICE; k++) {
          for (let i = 0; i < input.length; i++) input[i] = 5 * oscillator.next(110);
          circuit.play(input, output);
        }
        return (performance.now() - from) / 1000 / SECONDS;
      });
      // The first goes to the compiler.
      report(
        `Heard, ${cell.name.toLowerCase()}, ${times} steps a sample`,
        shares.slice(1),
        '% core',
        100,
      );
    }
}
