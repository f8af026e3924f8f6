import { sketch } from '@/core/drawing/sketch';
import type { Drawing } from '@/core/drawing/drawing';
import { nearestPreferred } from '@/core/quantity/series';
import {
  cutOffControl,
  pairAmps,
  pairSiemens,
  resonanceControl,
  TWO_PI,
  type Cell,
  type CellPart,
  type CellValues,
} from './cell';

/*
 * The positive-feedback second-order low-pass with a transconductor in the place of each resistor.
 * With w = gm / C in both places and K the gain that the first capacitor's foot is driven with:
 *
 *   H = A / (1 + (2 - K) s/w + (s/w)^2),  Q = 1 / (2 - K): it sings at K = 2 and w.
 *
 * Resistors would load each other, and K = 3 would do the same (R. P. Sallen, E. L. Key, "A Practical
 * Method of Designing RC Active Filters", IRE Trans. Circuit Theory 2, 1955).
 */

const TOP_AMPS = 50e-6;

/** Pad, two followers with a capacitor each, the first standing on what the amplifier drives. */
const CORE = `in 0,8 / 0,8 1,8 / resistor R1 1,8 right / 5,8 12,8 / 6,8 6,9 / resistor R2 6,9 down left / ground 6,13
  OTA G1 12,8 plus / 12,10 11,10 11,13 17,13 17,9 / 16,9 26,9 / 20,9 20,8 / capacitor C1 20,8 up right
  OTA G2 26,9 plus / 26,11 25,11 25,14 31,14 31,10 / 30,10 38,10 / 34,10 34,11 / capacitor C2 34,11 down right / ground 34,15`;

interface Arrangement {
  id: string;
  name: string;
  short: string;
  drawing: Drawing;
  parts: Record<string, CellPart>;
  /** Gain at the foot of the first capacitor, and from the second to the output. */
  back: (v: CellValues) => number;
  forward: (v: CellValues) => number;
  about: string;
}

const arranged = ({ parts, back, forward, ...words }: Arrangement): Cell => ({
  ...words,
  limits: { leastHz: 1, mostHz: 100_000 },
  usual: { lowHz: 30, highHz: 12_000 },
  plan(ask) {
    const farads = nearestPreferred(pairSiemens(TOP_AMPS) / (TWO_PI * ask.highHz), 'E6');
    const amps = (hz: number) => pairAmps(TWO_PI * hz * farads);
    return {
      parts: {
        R1: { value: 100e3 },
        R2: { value: 1e3 },
        C1: { value: farads },
        C2: { value: farads },
        G1: { value: amps(ask.lowHz) },
        G2: { value: amps(ask.lowHz) },
        P1: { value: 10e3, more: { turn: 0.5 } },
        ...parts,
      },
      controls: [cutOffControl(ask, amps, ['G1', 'G2']), resonanceControl({ from: 0, to: 1 })],
    };
  },
  textbook(v) {
    const [one, two] = [pairSiemens(v('G1')) / v('C1'), pairSiemens(v('G2')) / v('C2')];
    const K = back(v);
    const w0 = Math.sqrt(one * two);
    // (1 + s/w1) (1 + s/w2) - K s/w1
    const width = 1 / one + 1 / two - K / one;
    const f0Hz = w0 / TWO_PI;
    return {
      f0Hz,
      gain: (v('R2') / (v('R1') + v('R2'))) * forward(v),
      q: width > 0 ? 1 / (width * w0) : Infinity,
      loop: K,
      singsAt: { loop: 1 + one / two, hz: f0Hz },
    };
  },
  agrees: 2e-3,
  reasons: (v) => [
    {
      of: 'C1 C2',
      text: 'Each with its transconductor a pole that loads nothing; equal, both at one place.',
      formula: 'f_0 = \\frac{I}{2 V_T \\cdot 2\\pi C}',
    },
    {
      of: 'P1',
      text: 'The gain that the foot of C1 is driven with: at two it sings.',
      formula: 'Q = \\frac{1}{2 - K}',
      numbers: `\\frac{1}{2 - ${back(v).toPrecision(4)}}`,
      rule: 'With resistors in the place of the transconductors it would be 1 / (3 − K).',
    },
  ],
  control:
    'The bias current of both transconductors, in proportion; an exponential converter makes that a volt an octave.',
  bias: 'Both capacitors rest at ground; what hangs on them must take far less than the least bias current.',
  avoid:
    'Some fifty millivolts at the inputs are the most. Close to singing the second capacitor stands much higher than the input, and bends first.',
});

export const otaFeedbackGain = arranged({
  id: 'ota-feedback-gain',
  name: 'Two poles, gain fed back',
  short: 'positive feedback, one amplifier',
  drawing: sketch(`${CORE}
    20,4 20,2 46,2 46,11 / op-amp A1 38,10 plus / 42,11 50,11 / 38,12 37,12 37,17 38,17
    potentiometer P1 38,17 right / 42,17 44,17 44,11 / 40,19 43,19 43,17 / 37,17 37,18 / resistor RG 37,18 down left / ground 37,22
    op-amp A2 50,11 plus / 54,12 60,12 / out 60,12 / 50,13 49,13 49,17 50,17 / resistor R3 50,17 right / 54,17 56,17 56,12
    49,17 49,18 / resistor R4 49,18 down left / ground 49,22`),
  parts: { RG: { value: 9100 }, R3: { value: 100e3 }, R4: { value: 1e3 } },
  back: (v) => 1 + (v('P1', 'turn') * v('P1')) / v('RG'),
  forward: (v) => (1 + (v('P1', 'turn') * v('P1')) / v('RG')) * (1 + v('R3') / v('R4')),
  about:
    'Two followers, each a transconductor with its capacitor; the first capacitor stands on the output of an amplifier behind the second. Its gain takes damping away, and lifts the whole filter with it.',
});

export const otaFeedbackBuffer = arranged({
  id: 'ota-feedback-buffer',
  name: 'Two poles, buffered apart',
  short: 'positive feedback, a way of its own',
  drawing: sketch(`${CORE}
    op-amp A1 38,10 plus / 38,12 37,12 37,15 43,15 43,11 / 42,11 52,11
    46,11 46,6 44,6 / potentiometer P1 40,6 right flipped / 40,6 38,6 38,7 / ground 38,7
    42,4 42,1 36,1 / op-amp A3 36,1 plus left / 32,0 20,0 20,4 / 36,-1 37,-1 37,-5 36,-5 / resistor RF 36,-5 left / 32,-5 30,-5 30,0
    37,-5 39,-5 / resistor RG 39,-5 right / 43,-5 44,-5 44,-4 / ground 44,-4
    op-amp A2 52,11 plus / 56,12 62,12 / out 62,12 / 52,13 51,13 51,17 52,17 / resistor R3 52,17 right / 56,17 58,17 58,12
    51,17 51,18 / resistor R4 51,18 down left / ground 51,22`),
  parts: {
    RF: { value: 12e3 },
    RG: { value: 10e3 },
    R3: { value: 100e3 },
    R4: { value: 1e3 },
  },
  back: (v) => v('P1', 'turn') * (1 + v('RF') / v('RG')),
  forward: (v) => 1 + v('R3') / v('R4'),
  about:
    'The same two followers, the second behind a buffer; what drives the first capacitor’s foot is taken from there by a knob and an amplifier of its own. Resonance then leaves the bottom of the band where it is.',
});
