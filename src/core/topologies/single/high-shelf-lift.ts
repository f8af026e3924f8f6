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

/** H = -(R2/R1) (1 + s C1 (R1+R3)) / (1 + s C1 R3) */
function figures({ R1, R2, R3, C1 }: Values): StageFigures {
  return shelfFigures('high-shelf', -R2 / R1, C1 * (R1 + R3), C1 * R3);
}

export const highShelfLift: Topology = {
  id: 'high-shelf-lift',
  family: 'shelf-lift',
  name: 'High shelf, lifting',
  short: 'treble lift',
  asWords: 'a lifting treble shelf',
  kind: 'high-shelf',
  order: 1,
  opAmps: 1,
  gain: 'inverting',
  limits: { gain: [-20, -0.05], boost: [1.02, 30] },
  drawing: invertingDrawing('besideSeries', 'resistor'),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    const { tauZero, tauPole } = shelfTimes('high-shelf', ask);
    const C1 = startCapacitor(ask.f0Hz * Math.sqrt(ask.boost!), choice);
    const R3 = tauPole / C1;
    const R1 = tauZero / C1 - R3;
    return { R1, R2: -gain * R1, R3, C1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '@R3 (@boost - 1)',
        text: 'Alone at low frequencies; it sets the flat level with R2.',
      },
      { of: 'R2', formula: '-@gain @R1', text: 'Sets the level on the flat side.' },
      {
        of: 'R3',
        formula: '\\frac{1}{2\\pi @f0 @C1\\sqrt{@boost}}',
        text: 'Stands beside R1 at high frequencies, through C1.',
      },
      {
        of: 'C1',
        formula: '\\frac{1}{2\\pi @f0 @R3\\sqrt{@boost}}',
        text: 'The capacitor started from.',
      },
      shelfWhy('@C1 (@R1 + @R3)', '@C1 @R3'),
      {
        of: 'gain',
        formula: '-\\frac{@R2}{@R1}',
        text: 'The gain on the flat side; the stage inverts.',
      },
      { of: 'boost', formula: '\\frac{@R1 + @R3}{@R3}', text: 'The shelf over the flat side.' },
    ]),
  about:
    'At high frequencies C1 puts R3 beside R1 and more current reaches the op-amp; R3 keeps the lift from going on for ever.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'C1 moves the edge; R3 the height.',
  sensitivity: 'Low: level and edge follow the parts one to one.',
  avoid: 'The noise gain rises with the lift: hiss and the op-amp’s bandwidth feel it.',
};
