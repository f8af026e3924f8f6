import { nearestPreferred } from '@/core/quantity/series';
import { sketch } from '@/core/drawing/sketch';
import {
  cutOffControl,
  fourPoleLoop,
  pairAmps,
  pairSiemens,
  resonanceControl,
  texNumber,
  TWO_PI,
  wiperOf,
  type Cell,
  type CellValues,
} from './cell';

/** Current of each transconductor at the top of the range: quiet, and far from what it bears. */
const TOP_AMPS = 50e-6;

/** One pole: a transconductor that follows its own output, which a capacitor holds. */
const pole = (n: number, x: number): string =>
  `OTA G${n} ${x},10 plus / ${x + 4},11 ${x + 6},11 / ${x},12 ${x - 1},12 ${x - 1},15 ${x + 5},15 ${x + 5},11
   ${x + 6},11 ${x + 6},12 / capacitor C${n} ${x + 6},12 down right / ground ${x + 6},16 / ${x + 6},11 ${x + 10},11 ${x + 10},10`;

/**
 * Four poles in a loop: with H(s) = 1/(1 + s/w0)^4 of the cascade and k the gain of the way back,
 * inverted, it is -A H/(1 + k H); it sings at k = 4 and w0, where each pole turns by 45 degrees
 * (e.g. D. Rossum, "Making Digital Filters Sound Analog", ICMC 1992, for the linear loop).
 */
const drawing = sketch(
  `in 0,8 / 0,8 1,8 / resistor RI 1,8 right / 5,8 8,8
   op-amp A1 9,8 minus / 8,8 9,8 / 9,10 8,10 8,12 / ground 8,12 / 7,8 7,4 8,4 / resistor RF 8,4 right / 12,4 14,4 14,9 13,9
   14,9 16,9 16,10 18,10
   ${pole(1, 18)}
   28,10 30,10
   ${pole(2, 30)}
   40,10 42,10
   ${pole(3, 42)}
   52,10 54,10
   ${pole(4, 54)}
   64,10 66,10 / op-amp A2 66,10 plus / 70,11 74,11 / out 74,11
   66,12 65,12 65,16 66,16 / resistor RA 66,16 right / 70,16 72,16 72,11
   65,16 65,17 / resistor RB 65,17 down left / ground 65,21
   72,11 72,2 44,2 / potentiometer P1 40,2 right flipped / 40,2 38,2 38,3 / ground 38,3
   42,0 28,0 / resistor RQ 28,0 left / 24,0 6,0 6,8`,
);

const loopOf = (v: CellValues): number => {
  const gain = 1 + v('RA') / v('RB');
  // The wiper’s own resistance stands in line with RQ.
  const { turn, ohms } = wiperOf(v);
  return (turn * gain * v('RF')) / (v('RQ') + ohms);
};

export const otaCascade: Cell = {
  id: 'ota-cascade',
  name: 'Four-pole loop',
  short: 'four transconductors in a loop',
  drawing,
  limits: { leastHz: 1, mostHz: 100_000 },
  usual: { lowHz: 30, highHz: 12_000 },
  plan(ask) {
    const farads = nearestPreferred(pairSiemens(TOP_AMPS) / (TWO_PI * ask.highHz), 'E6');
    const amps = (hz: number) => pairAmps(TWO_PI * hz * farads);
    const poles = [1, 2, 3, 4];
    return {
      parts: {
        RI: { value: 100e3 },
        RF: { value: 2e3 },
        RQ: { value: 22e3 },
        RA: { value: 100e3 },
        RB: { value: 2e3 },
        P1: { value: 10e3, more: { turn: 0.5 } },
        ...Object.fromEntries(poles.map((n) => [`C${n}`, { value: farads }])),
        ...Object.fromEntries(poles.map((n) => [`G${n}`, { value: amps(ask.lowHz) }])),
      },
      controls: [
        cutOffControl(
          ask,
          amps,
          poles.map((n) => `G${n}`),
        ),
        resonanceControl({ from: 0, to: 1 }),
      ],
    };
  },
  textbook(v) {
    const loop = loopOf(v);
    const gain = (-(v('RF') / v('RI')) * (1 + v('RA') / v('RB'))) / (1 + loop);
    return { gain, ...fourPoleLoop(pairSiemens(v('G1')) / (TWO_PI * v('C1')), loop) };
  },
  agrees: 1e-4,
  reasons: (v) => [
    {
      of: 'C1 C2 C3 C4',
      text: 'With the transconductance each makes one pole; equal, they make four at one place.',
      formula: 'f_0 = \\frac{I}{2 V_T \\cdot 2\\pi C}',
      numbers: `\\frac{${texNumber(v('G1'))}}{2 \\cdot 0.02587 \\cdot 2\\pi \\cdot ${texNumber(v('C1'))}}`,
      rule: 'Rule of thumb: 19.2 times the current over 2π C.',
    },
    {
      of: 'RI RF',
      text: 'They take the level down to some tens of millivolts, where a transconductor is still straight.',
    },
    { of: 'RA RB', text: 'They give the level back.' },
    {
      of: 'RQ P1',
      text: 'The way back: what comes round turns the bottom down and lifts the cut-off; at four times it sings.',
      formula: 'k = \\frac{x (1 + R_A / R_B) R_F}{R_Q + x (1 - x) P_1}',
      numbers: loopOf(v).toPrecision(4),
    },
  ],
  about:
    'Four transconductors, each following its own output into a capacitor: four poles that one current moves together. What comes out is fed back inverted; where all four turn by 45 degrees each it comes round in step.',
  control:
    'Every transconductor has the same bias current. From an exponential converter it doubles with every volt, and so does the cut-off.',
  bias: 'The capacitors rest at ground. Each transconductor takes its current from the converter; its inputs take next to none.',
  avoid:
    'More than some fifty millivolts at the inputs bends: first the resonance sinks, then the sound grows dull. The bottom falls as resonance rises.',
};
