import { checkAsk, startCapacitor, TWO_PI, type Topology } from '../topology';
import { because } from '../why';
import { amplifierGain, lowPassFigures } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';

const RG = 10_000;

export const equalPartLowPass: Topology = {
  id: 'equal-part-low-pass',
  family: 'equal-part',
  name: 'Equal-part second-order low-pass',
  short: '2nd low-pass, equal parts',
  asWords: 'equal-part stages',
  kind: 'low-pass',
  order: 2,
  opAmps: 1,
  gain: 'given',
  limits: { q: [0.51, 8], gain: [1, 3] },
  drawing: positiveFeedbackDrawing('low-pass', true),
  /** Equal resistors, equal capacitors, and K = 3 - 1/Q. */
  design(ask, choice) {
    checkAsk(this, { ...ask, gain: undefined });
    const K = 3 - 1 / ask.q!;
    checkAsk({ ...this, limits: { gain: [K, K] } }, { f0Hz: ask.f0Hz, gain: ask.gain });
    const C = startCapacitor(ask.f0Hz, choice);
    const R = 1 / (TWO_PI * ask.f0Hz * C);
    return { R1: R, R2: R, C1: C, C2: C, RF: RG * (K - 1), RG };
  },
  figures: lowPassFigures,
  explain(values) {
    const f = lowPassFigures(values);
    const K = amplifierGain(values);
    return because(values, { ...f, own: { K } }, [
      {
        of: 'R1 R2',
        formula: '\\frac{1}{2\\pi @f0 @C1}',
        text: 'Two equal resistors.',
      },
      {
        of: 'C1 C2',

        text: 'Two equal capacitors, chosen first.',
      },
      { of: 'RF', formula: '(@K - 1) @RG', text: 'The divider sets Q.' },
      { of: 'RG', formula: '\\frac{@RF}{@K - 1}', text: 'The divider sets Q.' },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi\\sqrt{@R1 @R2 @C1 @C2}}',
        text: 'The divider does not move it.',
      },
      {
        of: 'Q',
        formula: '\\frac{\\sqrt{@R1 @R2 @C1 @C2}}{@R1 @C2 + @R2 @C2 + @R1 @C1 (1 - @K)}',
        text: 'Gain takes damping away; at K = 3 the stage oscillates.',
        rule: `Rule of thumb for equal parts: Q = 1/(3 − K) = ${K < 3 ? (1 / (3 - K)).toPrecision(4) : 'no longer stable'}; exact is ${f.q!.toPrecision(4)}.`,
      },
      { of: 'gain', formula: '1 + \\frac{@RF}{@RG}', text: 'The gain comes with the Q.' },
    ]);
  },
  about:
    'Two equal resistors and two equal capacitors; one divider sets the Q and brings its gain along.',
  outputs: 'The op-amp’s output.',
  tuning: 'RF sets Q alone; a double potentiometer for R1 and R2 sweeps f0 alone.',
  sensitivity: 'Q answers the gain with a factor of up to 3Q; f0 is calm.',
  avoid: 'Q above 3, and wherever the gain must be exact.',
};
