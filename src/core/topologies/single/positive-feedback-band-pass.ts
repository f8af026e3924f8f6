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
import { amplifierGain } from './positive-feedback';

/**
 * R1 to a node with C1 to ground, R3 from the output to it, C2 on to the amplifier with R2 to ground:
 *   H = (K s/(R1 C1)) / (s^2 + s ((C1+C2)/(R2 C1 C2) + (1/R1 + (1-K)/R3)/C1) + (1/R1+1/R3)/(R2 C1 C2))
 */
function figures(values: Values): StageFigures {
  const { R1, R2, R3, C1, C2 } = values;
  const K = amplifierGain(values);
  const w0 = Math.sqrt((1 / R1 + 1 / R3) / (R2 * C1 * C2));
  const width = (C1 + C2) / (R2 * C1 * C2) + (1 / R1 + (1 - K) / R3) / C1;
  return { f0Hz: w0 / TWO_PI, q: w0 / width, gain: K / (R1 * C1 * width), own: { K } };
}

const RG = 10_000;

export const positiveFeedbackBandPass: Topology = {
  id: 'positive-feedback-band-pass',
  name: 'Positive-feedback band-pass, equal parts',
  short: 'band-pass, equal parts',
  asWords: 'equal-part stages',
  kind: 'band-pass',
  order: 2,
  opAmps: 1,
  gain: 'given',
  limits: { q: [0.48, 8], gain: [0.3, 40] },
  drawing:
    sketch(`in 0,6 / 0,6 1,6 / resistor R1 1,6 right / 5,6 8,6 / capacitor C2 8,6 right / 12,6 15,6
    6,6 6,7 / capacitor C1 6,7 down left / ground 6,11 / 7,6 7,2 10,2 / resistor R3 10,2 right / 14,2 21,2 21,7
    13,6 13,7 / resistor R2 13,7 down left / ground 13,11 / op-amp A1 15,6 plus / 19,7 24,7 / out 24,7
    15,8 15,12 16,12 / resistor RF 16,12 right / 20,12 21,12 21,7 / 15,12 15,13 / resistor RG 15,13 down right / ground 15,17`),
  /** Equal parts: w0 = sqrt(2)/(R C), Q = sqrt(2)/(4-K), gain = K/(4-K). */
  design(ask, choice) {
    checkAsk(this, { ...ask, gain: undefined });
    const K = 4 - Math.SQRT2 / ask.q!;
    checkAsk(
      { ...this, limits: { gain: [K / (4 - K), K / (4 - K)] } },
      { f0Hz: ask.f0Hz, gain: ask.gain },
    );
    const C = startCapacitor(ask.f0Hz, choice);
    const R = Math.SQRT2 / (TWO_PI * ask.f0Hz * C);
    return { R1: R, R2: R, R3: R, C1: C, C2: C, RF: RG * (K - 1), RG };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1 R2 R3',
        formula: '\\frac{\\sqrt{2}}{2\\pi @f0 @C1}',
        text: 'Three equal resistors.',
      },
      {
        of: 'C1 C2',

        text: 'Two equal capacitors, chosen first.',
      },
      { of: 'RF', formula: '(@K - 1) @RG', text: 'The divider sets Q.' },
      { of: 'RG', formula: '\\frac{@RF}{@K - 1}', text: 'The divider sets Q.' },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi}\\sqrt{\\frac{\\frac{1}{@R1} + \\frac{1}{@R3}}{@R2 @C1 @C2}}',
        text: 'The centre; the amplifier’s gain does not move it.',
      },
      {
        of: 'Q',
        formula:
          '\\frac{2\\pi @f0}{\\frac{@C1 + @C2}{@R2 @C1 @C2} + \\frac{1}{@R1 @C1} + \\frac{1 - @K}{@R3 @C1}}',
        text: 'Positive feedback takes damping away; at K = 4 it oscillates.',
        rule: 'Rule of thumb with equal parts: Q = 1.414 / (4 − K).',
      },
      {
        of: 'gain',
        formula: '\\frac{@K @Q}{2\\pi @f0 @R1 @C1}',
        text: 'At the centre: it comes with the Q.',
      },
    ]),
  about:
    'A band-pass of equal parts around an amplifier whose gain sets the width and nothing else.',
  outputs: 'The op-amp’s output.',
  tuning: 'RF sets Q without moving the centre; R2 trims the centre.',
  sensitivity: 'Q answers the gain steeply: by about 2.8 Q per unit. Keep Q below 5.',
  avoid: 'High Q: a drift of RF by one per cent can start it oscillating.',
};
