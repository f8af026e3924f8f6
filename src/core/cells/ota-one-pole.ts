import { sketch } from '@/core/drawing/sketch';
import { nearestPreferred } from '@/core/quantity/series';
import { cutOffControl, pairAmps, pairSiemens, TWO_PI, type Cell, type CellValues } from './cell';

/** Current of the transconductor at the top of the range. */
const TOP_AMPS = 400e-6;
/** What the pads at both inputs leave of a level. */
const pad = (v: CellValues, series: string, shunt: string): number =>
  v(shunt) / (v(series) + v(shunt));

export const otaOnePole: Cell = {
  id: 'ota-one-pole',
  name: 'One pole',
  short: 'a transconductor and a buffer',
  drawing:
    sketch(`in 0,6 / 0,6 1,6 / resistor R1 1,6 right / 5,6 12,6 / 6,6 6,7 / resistor R2 6,7 down left / ground 6,11
    OTA G1 12,6 plus / 16,7 22,7 / 18,7 18,8 / capacitor C1 18,8 down right / ground 18,12
    op-amp A1 22,7 plus / 22,9 21,9 21,12 27,12 27,8 / 26,8 31,8 / out 31,8
    28,8 28,16 16,16 / resistor R3 16,16 left / 12,16 10,16 10,8 12,8 / 10,16 10,17 / resistor R4 10,17 down left / ground 10,21`),
  limits: { leastHz: 1, mostHz: 100_000 },
  usual: { lowHz: 30, highHz: 12_000 },
  plan(ask) {
    const [R1, R2] = [100e3, 1e3];
    const left = R2 / (R1 + R2);
    const farads = nearestPreferred((left * pairSiemens(TOP_AMPS)) / (TWO_PI * ask.highHz), 'E6');
    const amps = (hz: number) => pairAmps((TWO_PI * hz * farads) / left);
    const control = cutOffControl(ask, amps, ['G1']);
    return {
      parts: {
        R1: { value: R1 },
        R2: { value: R2 },
        R3: { value: R1 },
        R4: { value: R2 },
        C1: { value: farads },
        G1: { value: amps(ask.lowHz) },
      },
      controls: [control],
    };
  },
  textbook: (v) => ({
    f0Hz: (pairSiemens(v('G1')) * pad(v, 'R3', 'R4')) / (TWO_PI * v('C1')),
    gain: pad(v, 'R1', 'R2') / pad(v, 'R3', 'R4'),
  }),
  agrees: 1e-6,
  reasons: () => [
    {
      of: 'R1 R2 R3 R4',
      text: 'Pads of a hundred to one: the transconductor sees hundredths of the difference between input and output, and stays straight up to some volts.',
    },
    {
      of: 'C1',
      text: 'Fed with what is left of the difference: the voltage follows with one pole.',
      formula: 'f_0 = \\frac{I}{2 V_T} \\cdot \\frac{R_4}{R_3 + R_4} \\cdot \\frac{1}{2\\pi C_1}',
    },
  ],
  about:
    'A transconductor turns the difference between input and output into a current, a capacitor adds that up, and a buffer hands the voltage on: one pole at a place that the current sets.',
  control: 'The bias current, in proportion; an exponential converter makes that a volt an octave.',
  bias: 'Everything rests at ground; the buffer’s input must take far less than the least bias current.',
  avoid:
    'Volts of difference, as of a square far above the cut-off: the output then rises in straight lines.',
};
