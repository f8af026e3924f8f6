import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because } from '../why';
import { invertingDrawing } from './inverting-drawing';

/** H = -(R2/R1) s R1 C1 / (1 + s R1 C1) */
const figures = ({ R1, R2, C1 }: Values): StageFigures => ({
  f0Hz: 1 / (TWO_PI * R1 * C1),
  gain: -R2 / R1,
});

export const invertingHighPass: Topology = {
  id: 'inverting-high-pass',
  family: 'inverting',
  name: 'First-order high-pass, inverting',
  short: '1st high-pass, inverting',
  asWords: 'an inverting first-order stage',
  kind: 'high-pass',
  order: 1,
  opAmps: 1,
  gain: 'inverting',
  limits: { gain: [-100, -0.01] },
  suits: ({ alone, gainDb }) => (alone && gainDb !== 0 ? 3 : 0),
  drawing: invertingDrawing('series', 'resistor'),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    const C1 = startCapacitor(ask.f0Hz, choice);
    const R1 = 1 / (TWO_PI * ask.f0Hz * C1);
    return { R1, R2: -gain * R1, C1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '-\\frac{@R2}{@gain}',
        text: 'Input resistor; with R2 it sets the gain.',
      },
      { of: 'R2', formula: '-@gain @R1', text: 'Feedback resistor.' },
      { of: 'C1', formula: '\\frac{1}{2\\pi @f0 @R1}', text: 'The capacitor started from.' },
      { of: 'f0', formula: '\\frac{1}{2\\pi @R1 @C1}', text: 'Here the level is 3.01 dB down.' },
      { of: 'gain', formula: '-\\frac{@R2}{@R1}', text: 'Pass-band gain; the stage inverts.' },
    ]),
  about: 'The inverting amplifier with a capacitor before it: below the corner it differentiates.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'C1 moves f0, R2 the gain.',
  sensitivity: 'One per cent of a part is one per cent of f0 or of the gain.',
  avoid: 'Any resistance of the source adds to R1: it lowers f0 and the gain.',
};
