import { settledOhms } from '@/core/circuit/devices/photocell';
import { sketch } from '@/core/drawing/sketch';
import { lastWhere } from '@/core/numeric/root';
import { nearestPreferred } from '@/core/quantity/series';
import { TWO_PI, type Cell, type CellValues } from './cell';

/** A small lamp with a cell of cadmium sulphide: quick to the light, slow back to the dark. */
const LAMP_AND_CELL = {
  lampOhms: 120,
  darkOhms: 5e6,
  curve: [
    { amps: 0.1e-3, ohms: 300e3 },
    { amps: 0.5e-3, ohms: 40e3 },
    { amps: 2e-3, ohms: 6e3 },
    { amps: 10e-3, ohms: 800 },
    { amps: 20e-3, ohms: 400 },
  ],
  onSeconds: 0.004,
  offSeconds: 0.06,
};
const TOP_AMPS = 20e-3;
const LEAST_AMPS = 20e-6;
/** Of the gate: what the cells divide with when they are dark. */
const GATE_OHMS = 100e3;
/** The first capacitor over the second: Q is half its root. */
const RATIO = 4.7;

/** Lamp current for a resistance of the cells, by halving: the law falls all the way. */
function ampsFor(ohms: number): number {
  const darker = (u: number) => settledOhms(LAMP_AND_CELL, Math.exp(u)) > ohms;
  return Math.exp(lastWhere(darker, Math.log(LEAST_AMPS / 1e3), Math.log(TOP_AMPS * 10)));
}

const closed = (v: CellValues, id: string): boolean => v(id, 'closed') >= 0.5;

/**
 * A second-order low-pass about a buffer whose two resistors are cells in the light of one current,
 * with a resistor to ground behind them that makes a divider of them:
 *
 *   in/out = 1 + 2a + s R (2 C2 + a C1) + s^2 R^2 C1 C2,  a = R / RG
 *
 * The nodal equations of the unity-gain circuit of R. P. Sallen and E. L. Key (1955) with that resistor
 * put in; without it a = 0, without the first capacitor C1 = 0.
 */
export const photocellGate: Cell = {
  id: 'photocell-gate',
  name: 'Lamp and photocell gate',
  short: 'two cells in one light',
  drawing:
    sketch(`in 0,8 / 0,8 4,8 / lamp-and-photocell H1 4,8 right / 8,8 16,8 / lamp-and-photocell H2 16,8 right / 20,8 32,8
    8,11 16,11 / 20,11 22,11 22,13 / ground 22,13 / 4,11 2,11 2,13 / current-source IL 2,17 up / 2,17 2,18 / ground 2,18
    12,8 12,7 / capacitor C1 12,7 up right / 12,3 12,2 16,2 / switch SF 16,2 right / 20,2 39,2 39,9
    10,8 10,13 / capacitor C3 10,13 down right / ground 10,17
    25,8 25,9 / capacitor C2 25,9 down right / ground 25,13 / 29,8 29,9 / switch SG 29,9 down / 29,13 29,14 / resistor RG 29,14 down right / ground 29,18
    op-amp A1 32,8 plus / 32,10 31,10 31,13 37,13 37,9 / 36,9 43,9 / out 43,9`),
  limits: { leastHz: 10, mostHz: 50_000 },
  usual: { lowHz: 60, highHz: 12_000 },
  ownLaw: true,
  plan(ask) {
    const least = settledOhms(LAMP_AND_CELL, TOP_AMPS);
    const mean = 1 / (TWO_PI * ask.highHz * least);
    const C1 = nearestPreferred(mean * Math.sqrt(RATIO), 'E6');
    const C2 = nearestPreferred(mean ** 2 / C1, 'E6');
    // In the gate the dark cells move up what they close: by the root of 1 + 2a.
    const dark = (ohms: number) =>
      Math.sqrt(1 + (2 * ohms) / GATE_OHMS) / (TWO_PI * ohms * Math.sqrt(C1 * C2));
    const ohms = Math.exp(
      lastWhere((u) => dark(Math.exp(u)) > ask.lowHz, Math.log(least), Math.log(5e6)),
    );
    const from = Math.max(LEAST_AMPS, ampsFor(ohms));
    const model = { name: 'small lamp, slow cell', model: LAMP_AND_CELL };
    return {
      parts: {
        H1: { model },
        H2: { model },
        IL: { value: Math.sqrt(from * TOP_AMPS) },
        C1: { value: C1 },
        C2: { value: C2 },
        C3: { value: 220e-12 },
        SF: { value: 1 },
        SG: { value: 1 },
        RG: { value: GATE_OHMS },
      },
      controls: [
        {
          for: 'cut-off',
          name: 'Light',
          is: 'amps',
          at: 0.6,
          moves: [{ part: 'IL', quantity: 'dc', from, to: TOP_AMPS, law: 'by ratio' }],
        },
      ],
    };
  },
  textbook(v) {
    const R = settledOhms(LAMP_AND_CELL, v('IL', 'dc'));
    const a = closed(v, 'SG') ? R / v('RG') : 0;
    const gain = 1 / (1 + 2 * a);
    const C2 = v('C2');
    if (!closed(v, 'SF')) return { f0Hz: (1 + 2 * a) / (TWO_PI * 2 * R * C2), gain };
    const C1 = v('C1');
    const w0 = Math.sqrt(1 + 2 * a) / (R * Math.sqrt(C1 * C2));
    return {
      f0Hz: w0 / TWO_PI,
      gain,
      q: Math.sqrt((1 + 2 * a) * C1 * C2) / (2 * C2 + a * C1),
    };
  },
  agrees: 0.05,
  small: ['C3', 'C2'],
  paths: [
    { name: 'both joined', closed: ['SF', 'SG'], open: [] },
    { name: 'filter', closed: ['SF'], open: ['SG'] },
    { name: 'gate', closed: ['SG'], open: ['SF'] },
    { name: 'neither', closed: [], open: ['SF', 'SG'] },
  ],
  reasons: () => [
    {
      of: 'C1 C2',
      text: 'With both paths joined: a low-pass whose resistors are the cells.',
      formula: 'f_0 = \\frac{\\sqrt{1 + 2 R / R_G}}{2\\pi R \\sqrt{C_1 C_2}}',
    },
    {
      of: 'RG',
      text: 'Makes a divider of the dark cells: what is closed is also quiet.',
      formula: 'H_0 = \\frac{1}{1 + 2 R / R_G}',
    },
    {
      of: 'C3',
      text: 'What cells and wiring have anyway: small, and not ignored. In the dark it is a pole of its own.',
    },
  ],
  about:
    'Two cells in the light of one lamp current, in the place of a low-pass’s two resistors. One switch joins the capacitor that makes it ring, the other a resistor that makes a divider of the cells: a filter, a gate for loudness, neither, or both at once, as struck things sound: dull as they fade.',
  control:
    'The lamp’s current. The cells follow it by a law of their own, quickly up and slowly down: a short pluck becomes a tone that fades.',
  bias: 'Nothing: the cells are resistors, and everything rests where the source does.',
  avoid:
    'Exact places: two cells are never alike, and they remember light. Keep stray light out of the case.',
};
