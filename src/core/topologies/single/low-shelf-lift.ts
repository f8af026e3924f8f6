import { shelfFigures, shelfTimes, shelfWhy } from '../shelf';
import {
  checkAsk,
  startCapacitor,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because } from '../why';
import { invertingDrawing } from './inverting-drawing';

/** H = -((R2+R3)/R1) (1 + s C1 R2 R3/(R2+R3)) / (1 + s C1 R3) */
function figures({ R1, R2, R3, C1 }: Values): StageFigures {
  return shelfFigures('low-shelf', -(R2 + R3) / R1, (C1 * R2 * R3) / (R2 + R3), C1 * R3);
}

export const lowShelfLift: Topology = {
  id: 'low-shelf-lift',
  family: 'shelf-lift',
  name: 'Low shelf, lifting',
  short: 'bass lift',
  asWords: 'a lifting bass shelf',
  kind: 'low-shelf',
  order: 1,
  opAmps: 1,
  gain: 'inverting',
  limits: { gain: [-20, -0.05], boost: [1.02, 30] },
  drawing: invertingDrawing('resistor', 'seriesThenParallel'),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    const { tauZero, tauPole } = shelfTimes('low-shelf', ask);
    const C1 = startCapacitor(ask.f0Hz, choice);
    const R3 = tauPole / C1;
    const R2 = 1 / (C1 / tauZero - 1 / R3);
    return { R1: -R2 / gain, R2, R3, C1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      { of: 'R1', formula: '-\\frac{@R2}{@gain}', text: 'Sets the level on the flat side.' },
      {
        of: 'R2',
        formula: '\\frac{@R3}{@boost - 1}',
        text: 'What is left of the feedback when C1 is a short.',
      },
      {
        of: 'R3',
        formula: '\\frac{\\sqrt{@boost}}{2\\pi @f0 @C1}',
        text: 'In the feedback only at low frequencies, where C1 lets it.',
      },
      {
        of: 'C1',
        formula: '\\frac{\\sqrt{@boost}}{2\\pi @f0 @R3}',
        text: 'The capacitor started from.',
      },
      shelfWhy('\\frac{@C1 @R2 @R3}{@R2 + @R3}', '@C1 @R3'),
      {
        of: 'gain',
        formula: '-\\frac{@R2}{@R1}',
        text: 'The gain on the flat side; the stage inverts.',
      },
      { of: 'boost', formula: '\\frac{@R2 + @R3}{@R2}', text: 'The shelf over the flat side.' },
    ]),
  about:
    'At low frequencies the feedback is R2 and R3 in a row and the gain high; above, C1 shorts R3 and the gain falls to its flat value.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'C1 moves the edge; R3 the height (and the edge a little).',
  sensitivity: 'Low: level and edge follow the parts one to one.',
  avoid: 'Lifting bass lifts rumble and d.c. offset with it: keep a high-pass before it.',
};
