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

/** H = 1 + R1/Z = (1 + s (R1+R3) C1 + s^2 L C1) / (1 + s R3 C1 + s^2 L C1) */
function figures(v: Values): StageFigures {
  const w0 = 1 / Math.sqrt(madeCoil(v) * v.C1);
  const boost = 1 + v.R1 / v.R3;
  return { f0Hz: w0 / TWO_PI, gain: 1, boost, q: 1 / (Math.sqrt(boost) * w0 * v.R3 * v.C1) };
}

export const resonatorPeak: Topology = {
  ...RESONATOR_WORDS,
  id: 'resonator-peak',
  name: 'Peak with a made coil',
  short: 'peak, made coil',
  asWords: 'a resonator stage',
  kind: 'peak',
  order: 2,
  opAmps: 3,
  gain: 'unity',
  limits: { q: [0.2, 20], gain: [1, 1], boost: [1.02, 40] },
  drawing: sketch(`in 0,2 / 0,2 8,2 / op-amp A1 8,2 plus / 12,3 19,3 / out 19,3
    8,4 7,4 7,7 7,8 / 7,7 9,7 / resistor R1 9,7 right / 13,7 15,7 15,3 / ${RESONANCE}`),
  design(ask, choice) {
    checkAsk(this, ask);
    const R3 = WORKING_OHMS / (ask.boost! - 1);
    return {
      R1: WORKING_OHMS,
      ...resonanceValues(ask.f0Hz, R3, 1 / (ask.q! * Math.sqrt(ask.boost!)), choice),
    };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '@R3 (@boost - 1)',
        text: 'The feedback resistor that the resonance works against.',
      },
      {
        of: 'R3',
        formula: '\\frac{@R1}{@boost - 1}',
        text: 'What is left of the branch at f0: it sets the height.',
      },
      {
        of: 'C1',
        formula: '\\frac{1}{2\\pi @f0 @R3 @Q\\sqrt{@boost}}',
        text: 'Its reactance at f0 over R3 is the width.',
      },
      ...RESONANCE_WHY,
      {
        of: 'Q',
        formula: '\\frac{1}{2\\pi @f0 @R3 @C1\\sqrt{@boost}}',
        text: 'Centre over the width at half the height in dB.',
      },
      {
        of: 'boost',
        formula: '1 + \\frac{@R1}{@R3}',
        text: 'Level at the centre over that outside.',
      },
    ]),
  about:
    'A gain stage whose divider has a resonance for a foot: only at f0 is there a foot to speak of, and gain.',
};
