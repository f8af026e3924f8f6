import { sketch } from '@/core/drawing/sketch';
import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because } from '../why';

/**
 * A multiple-feedback band-pass whose plus input gets k of the input (T. Delyiannis, "RC active
 * all-pass sections", Electronics Letters 5, 1969): with equal capacitors, R1 in and R2 back,
 *   H = k (1 - s/(Q w0) + s^2/w0^2) / (1 + s/(Q w0) + s^2/w0^2),  1/k = 1 + 4 R1/R2
 */
function figures({ R1, R2, R3, R4, C1, C2 }: Values): StageFigures {
  const C = Math.sqrt(C1 * C2);
  return {
    f0Hz: 1 / (TWO_PI * C * Math.sqrt(R1 * R2)),
    q: 0.5 * Math.sqrt(R2 / R1),
    gain: R4 / (R3 + R4),
  };
}

const DIVIDER = 10_000;

export const allPassSecond: Topology = {
  id: 'all-pass-second',
  name: 'Second-order all-pass',
  short: '2nd all-pass',
  asWords: 'second-order all-passes',
  kind: 'all-pass',
  order: 2,
  opAmps: 1,
  gain: 'given',
  needsMatching: true,
  limits: { q: [0.3, 5], gain: [0.05, 1] },
  drawing:
    sketch(`in 0,6 / 0,6 3,6 / resistor R1 3,6 right / 7,6 9,6 / capacitor C2 9,6 right / 13,6 16,6
    8,6 8,0 11,0 / capacitor C1 11,0 right / 15,0 22,0 22,7 / 15,6 15,3 16,3 / resistor R2 16,3 right / 20,3 22,3
    op-amp A1 16,6 minus / 2,6 2,8 4,8 / resistor R3 4,8 right / 8,8 16,8 / resistor R4 11,9 down right / 11,8 11,9 / ground 11,13
    20,7 25,7 / out 25,7`),
  design(ask, choice) {
    checkAsk(this, { ...ask, gain: undefined });
    const q = ask.q!;
    const k = (q * q) / (1 + q * q);
    checkAsk({ ...this, limits: { gain: [k, k] } }, { f0Hz: ask.f0Hz, gain: ask.gain });
    const C = startCapacitor(ask.f0Hz, choice);
    const R1 = 1 / (TWO_PI * ask.f0Hz * C * 2 * q);
    return { R1, R2: 4 * q * q * R1, R3: DIVIDER / (q * q), R4: DIVIDER, C1: C, C2: C };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '\\frac{1}{4\\pi @f0 @C1 @Q}',
        text: 'Input resistor of the band-pass.',
      },
      { of: 'R2', formula: '4 @Q^2 @R1', text: 'Feedback resistor: its ratio to R1 is the Q.' },
      {
        of: 'R3',
        formula: '\\frac{@R4}{@Q^2}',
        text: 'Divides the input so that the level comes out flat.',
      },
      { of: 'R4', formula: '@Q^2 @R3', text: 'Lower part of that divider.' },
      { of: 'C1 C2', text: 'Equal capacitors, chosen first.' },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi\\sqrt{@R1 @R2 @C1 @C2}}',
        text: 'Here the phase has turned by 180 degrees.',
      },
      {
        of: 'Q',
        formula: '\\frac{1}{2}\\sqrt{\\frac{@R2}{@R1}}',
        text: 'How fast the phase turns.',
      },
      {
        of: 'gain',
        formula: '\\frac{@R4}{@R3 + @R4}',
        text: 'The same at every frequency, and below one: make it up elsewhere.',
      },
    ]),
  about:
    'A band-pass is taken from the signal twice, which leaves the level and turns the phase through a whole circle.',
  outputs: 'The op-amp’s output, at a level of Q²/(1+Q²).',
  tuning: 'R1 and R2 together move f0; R3 flattens the level.',
  sensitivity: 'A mismatch of the divider shows as a dent or a hump at f0.',
  avoid: 'High Q, where the level is hard to keep flat; the summed form keeps unity gain.',
};
