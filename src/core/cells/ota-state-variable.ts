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

/** What comes back of the band-pass: the damping, one over Q. */
function damping(v: CellValues): number {
  const { turn, ohms } = wiperOf(v);
  return (turn * v('R3')) / (v('RQ') + ohms);
}

const integrator = (v: CellValues, n: 1 | 2): number => {
  const [series, shunt] = n === 1 ? ['R4', 'R5'] : ['R6', 'R7'];
  return (pairSiemens(v(`G${n}`)) * v(shunt)) / (v(series) + v(shunt)) / v(`C${n}`);
};

export const otaStateVariable: Cell = {
  id: 'ota-state-variable',
  name: 'State variable',
  short: 'two integrators, three outputs',
  drawing:
    sketch(`in 0,8 / 0,8 1,8 / resistor R1 1,8 right / 5,8 12,8 / op-amp A1 12,8 minus / 12,10 11,10 11,12 / ground 11,12
    10,8 10,4 11,4 / resistor R3 11,4 right / 15,4 18,4 18,9 / 16,9 20,9 / 20,9 20,6 / tap high 20,6
    20,9 21,9 / resistor R4 21,9 right / 25,9 28,9 / 26,9 26,10 / resistor R5 26,10 down left / ground 26,14
    OTA G1 28,9 plus / 28,11 28,13 / ground 28,13 / 32,10 38,10 / 34,10 34,11 / capacitor C1 34,11 down right / ground 34,15
    op-amp A2 38,10 plus / 38,12 37,12 37,15 43,15 43,11 / 42,11 46,11 / 45,11 45,8 / tap band 45,8
    46,11 47,11 / resistor R6 47,11 right / 51,11 54,11 / 52,11 52,12 / resistor R7 52,12 down left / ground 52,16
    OTA G2 54,11 plus / 54,13 54,15 / ground 54,15 / 58,12 64,12 / 60,12 60,13 / capacitor C2 60,13 down right / ground 60,17
    op-amp A3 64,12 plus / 64,14 63,14 63,17 69,17 69,13 / 68,13 74,13 / out 74,13
    70,13 70,-4 20,-4 / resistor R2 20,-4 left / 16,-4 6,-4 6,8
    44,11 44,2 40,2 / potentiometer P1 36,2 right flipped / 36,2 34,2 34,3 / ground 34,3
    38,0 28,0 / resistor RQ 28,0 left / 24,0 8,0 8,8`),
  limits: { leastHz: 1, mostHz: 100_000 },
  usual: { lowHz: 30, highHz: 12_000 },
  plan(ask) {
    const [series, shunt] = [100e3, 1e3];
    const left = shunt / (series + shunt);
    const farads = nearestPreferred((left * pairSiemens(TOP_AMPS)) / (TWO_PI * ask.highHz), 'E6');
    const amps = (hz: number) => pairAmps((TWO_PI * hz * farads) / left);
    const cutOff = cutOffControl(ask, amps, ['G1', 'G2']);
    return {
      parts: {
        R1: { value: 100e3 },
        R2: { value: 100e3 },
        R3: { value: 100e3 },
        RQ: { value: 47e3 },
        P1: { value: 10e3, more: { turn: 0.5 } },
        ...Object.fromEntries(['R4', 'R6'].map((r) => [r, { value: series }])),
        ...Object.fromEntries(['R5', 'R7'].map((r) => [r, { value: shunt }])),
        ...Object.fromEntries(['C1', 'C2'].map((c) => [c, { value: farads }])),
        ...Object.fromEntries(['G1', 'G2'].map((g) => [g, { value: amps(ask.lowHz) }])),
      },
      // Turned up, less of the band-pass comes back: less damping.
      controls: [cutOff, resonanceControl({ from: 1, to: 0 })],
    };
  },
  textbook(v) {
    const back = v('R3') / v('R2');
    const [one, two] = [integrator(v, 1), integrator(v, 2)];
    const w0 = Math.sqrt(back * one * two);
    // s^2 + s D w1 + back w1 w2
    return { f0Hz: w0 / TWO_PI, gain: -v('R2') / v('R1'), q: w0 / (damping(v) * one) };
  },
  agrees: 1e-6,
  reasons: () => [
    {
      of: 'C1 C2',
      text: 'Two integrators in a ring with an inverting sum: two poles at one place.',
      formula: 'f_0 = \\frac{I}{2 V_T} \\cdot \\frac{R_5}{R_4 + R_5} \\cdot \\frac{1}{2\\pi C_1}',
    },
    {
      of: 'RQ P1',
      text: 'What comes back of the band-pass damps: turned up, less does.',
      formula: '\\frac{1}{Q} = \\frac{x R_3}{R_Q + x (1 - x) P_1}',
    },
  ],
  about:
    'Two integrators in a ring with a sum that inverts: low, band and high stand at three outputs at once. One current in both moves them; how much of the band-pass comes back sets the Q, and leaves the cut-off alone.',
  control:
    'The bias current of both transconductors, in proportion; an exponential converter makes that a volt an octave.',
  bias: 'The ring holds its own rest at ground: each integrator is fed back through the other.',
  avoid:
    'High Q with much level: the band-pass stands Q times higher than the input, and bends first. With nothing coming back it neither grows nor dies away: real op-amps decide.',
};
