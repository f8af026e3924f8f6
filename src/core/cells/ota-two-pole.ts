import { sketch } from '@/core/drawing/sketch';
import { nearestPreferred } from '@/core/quantity/series';
import {
  cutOffControl,
  pairAmps,
  pairSiemens,
  resonanceControl,
  TWO_PI,
  wiperOf,
  type Cell,
  type CellValues,
} from './cell';

const TOP_AMPS = 400e-6;
const [SERIES, SHUNT] = [100e3, 1e3];

const pad = (v: CellValues, series: string, shunt: string, more = 0): number =>
  v(shunt) / (v(series) + more + v(shunt));

/** How much of the output the second transconductor is given back, against what it is given of the first. */
function damping(v: CellValues): number {
  const { turn, ohms } = wiperOf(v);
  return (turn * pad(v, 'R7', 'R8', ohms)) / pad(v, 'R3', 'R4');
}

const rate = (v: CellValues, n: 1 | 2): number =>
  (pairSiemens(v(`G${n}`)) * (n === 1 ? pad(v, 'R1', 'R2') : pad(v, 'R3', 'R4'))) / v(`C${n}`);

export const otaTwoPole: Cell = {
  id: 'ota-two-pole',
  name: 'Two poles in a loop',
  short: 'two transconductors and two buffers',
  drawing:
    sketch(`in 0,8 / 0,8 1,8 / resistor R1 1,8 right / 5,8 12,8 / 7,8 7,9 / resistor R2 7,9 down left / ground 7,13
    OTA G1 12,8 plus / 16,9 22,9 / 18,9 18,10 / capacitor C1 18,10 down right / ground 18,14
    op-amp A1 22,9 plus / 22,11 21,11 21,14 27,14 27,10 / 26,10 28,10 / resistor R3 28,10 right / 32,10 37,10 / 33,10 33,11 / resistor R4 33,11 down left / ground 33,15
    OTA G2 37,10 plus / 41,11 47,11 / 43,11 43,12 / capacitor C2 43,12 down right / ground 43,16
    op-amp A2 47,11 plus / 47,13 46,13 46,16 52,16 52,12 / 51,12 58,12 / out 58,12
    54,12 54,20 24,20 / resistor R5 24,20 left / 20,20 10,20 10,10 12,10 / 13,20 13,21 / resistor R6 13,21 down left / ground 13,25
    54,20 54,26 50,26 / potentiometer P1 46,26 right flipped / 46,26 44,26 44,27 / ground 44,27
    48,24 44,24 / resistor R7 44,24 left / 40,24 35,24 35,12 37,12 / 38,24 38,25 / resistor R8 38,25 down left / ground 38,29`),
  limits: { leastHz: 1, mostHz: 100_000 },
  usual: { lowHz: 30, highHz: 12_000 },
  plan(ask) {
    const left = SHUNT / (SERIES + SHUNT);
    const farads = nearestPreferred((left * pairSiemens(TOP_AMPS)) / (TWO_PI * ask.highHz), 'E6');
    // Twice as large, the first leaves the two poles flat with everything given back.
    const double = nearestPreferred(2 * farads, 'E6');
    const amps = (hz: number) => pairAmps((TWO_PI * hz * Math.sqrt(farads * double)) / left);
    return {
      parts: {
        ...Object.fromEntries(['R1', 'R3', 'R5', 'R7'].map((r) => [r, { value: SERIES }])),
        ...Object.fromEntries(['R2', 'R4', 'R6', 'R8'].map((r) => [r, { value: SHUNT }])),
        P1: { value: 10e3, more: { turn: 0.5 } },
        C1: { value: double },
        C2: { value: farads },
        ...Object.fromEntries(['G1', 'G2'].map((g) => [g, { value: amps(ask.lowHz) }])),
      },
      controls: [cutOffControl(ask, amps, ['G1', 'G2']), resonanceControl({ from: 1, to: 0 })],
    };
  },
  textbook(v) {
    const [one, two] = [rate(v, 1), rate(v, 2)];
    const w0 = Math.sqrt(one * two);
    // s^2 + s x w2 + w1 w2
    return {
      f0Hz: w0 / TWO_PI,
      gain: pad(v, 'R1', 'R2') / pad(v, 'R5', 'R6'),
      q: w0 / (damping(v) * two),
    };
  },
  agrees: 1e-6,
  reasons: () => [
    {
      of: 'C1 C2',
      text: 'Two integrators one after the other; the output goes back to the first in full, and to the second in part.',
      formula:
        'f_0 = \\frac{I}{2 V_T} \\cdot \\frac{1}{101} \\cdot \\frac{1}{2\\pi \\sqrt{C_1 C_2}}',
    },
    {
      of: 'P1 R7',
      text: 'What goes back to the second damps: turned up, less does.',
      formula: 'Q = \\frac{1}{x} \\sqrt{\\frac{C_2}{C_1}}',
    },
  ],
  about:
    'Two transconductors, each with a capacitor and a buffer, in one loop: a low-pass of two poles that one current moves, with half the parts of the state variable and one output.',
  control:
    'The bias current of both, in proportion; an exponential converter makes that a volt an octave.',
  bias: 'The outer loop holds the rest at ground; pads leave each input hundredths of a volt.',
  avoid:
    'Nothing given back: it then neither grows nor dies away, and what the op-amps are slow by decides.',
};
