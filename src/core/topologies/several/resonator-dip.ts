import { sketch } from '@/core/drawing/sketch';
import { checkAsk, TWO_PI, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';
import {
  madeCoil,
  RESONANCE,
  RESONANCE_WHY,
  resonanceValues,
  RESONATOR_WORDS,
  WORKING_OHMS,
} from './resonator';

/** H = Z/(R1+Z) = (1 + s R3 C1 + s^2 L C1) / (1 + s (R1+R3) C1 + s^2 L C1) */
function figures(v: Values): StageFigures {
  const w0 = 1 / Math.sqrt(madeCoil(v) * v.C1);
  const boost = v.R3 / (v.R1 + v.R3);
  return { f0Hz: w0 / TWO_PI, gain: 1, boost, q: Math.sqrt(boost) / (w0 * v.R3 * v.C1) };
}

export const resonatorDip: Topology = {
  ...RESONATOR_WORDS,
  id: 'resonator-dip',
  name: 'Dip with a made coil',
  short: 'dip, made coil',
  asWords: 'a resonator stage',
  kind: 'peak',
  order: 2,
  opAmps: 3,
  gain: 'unity',
  limits: { q: [0.2, 20], gain: [1, 1], boost: [0.025, 0.98] },
  drawing:
    sketch(`in 0,2 / 0,2 1,2 / resistor R1 1,2 right / 5,2 8,2 / op-amp A1 8,2 plus / 8,4 8,6 13,6 13,3
    12,3 19,3 / out 19,3 / 7,2 7,8 / ${RESONANCE}`),
  design(ask, choice) {
    checkAsk(this, ask);
    const boost = ask.boost!;
    const R3 = (WORKING_OHMS * boost) / (1 - boost);
    return {
      R1: WORKING_OHMS,
      ...resonanceValues(ask.f0Hz, R3, Math.sqrt(boost) / ask.q!, choice),
    };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '\\frac{@R3 (1 - @boost)}{@boost}',
        text: 'The resonance divides the input down against it.',
      },
      {
        of: 'R3',
        formula: '\\frac{@R1 @boost}{1 - @boost}',
        text: 'What is left of the branch at f0: it sets the depth.',
      },
      {
        of: 'C1',
        formula: '\\frac{\\sqrt{@boost}}{2\\pi @f0 @R3 @Q}',
        text: 'Its reactance at f0 over R3 is the width.',
      },
      ...RESONANCE_WHY,
      {
        of: 'Q',
        formula: '\\frac{\\sqrt{@boost}}{2\\pi @f0 @R3 @C1}',
        text: 'Centre over the width at half the depth in dB.',
      },
      {
        of: 'boost',
        formula: '\\frac{@R3}{@R1 + @R3}',
        text: 'Level at the centre over that outside.',
      },
    ]),
  about: 'A resistor into a resonance: at f0 the branch is nearly a short and the level dips.',
};
