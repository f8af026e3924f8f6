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

/** H = -(R2/R1) (1 + s C1 R3) / (1 + s C1 (R2+R3)) */
function figures({ R1, R2, R3, C1 }: Values): StageFigures {
  return shelfFigures('high-shelf', -R2 / R1, C1 * R3, C1 * (R2 + R3));
}

export const highShelfCut: Topology = {
  id: 'high-shelf-cut',
  family: 'shelf-cut',
  name: 'High shelf, cutting',
  short: 'treble cut',
  asWords: 'a cutting treble shelf',
  kind: 'high-shelf',
  order: 1,
  opAmps: 1,
  gain: 'inverting',
  limits: { gain: [-20, -0.05], boost: [0.033, 0.98] },
  drawing: invertingDrawing('resistor', 'besideSeries'),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    const { tauZero, tauPole } = shelfTimes('high-shelf', ask);
    const C1 = startCapacitor(ask.f0Hz / Math.sqrt(ask.boost!), choice);
    const R3 = tauZero / C1;
    const R2 = tauPole / C1 - R3;
    return { R1: -R2 / gain, R2, R3, C1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      { of: 'R1', formula: '-\\frac{@R2}{@gain}', text: 'Sets the level on the flat side.' },
      {
        of: 'R2',
        formula: '\\frac{@R3 (1 - @boost)}{@boost}',
        text: 'The feedback at low frequencies.',
      },
      {
        of: 'R3',
        formula: '\\frac{\\sqrt{@boost}}{2\\pi @f0 @C1}',
        text: 'Stands beside R2 at high frequencies, through C1.',
      },
      {
        of: 'C1',
        formula: '\\frac{\\sqrt{@boost}}{2\\pi @f0 @R3}',
        text: 'The capacitor started from.',
      },
      shelfWhy('@C1 @R3', '@C1 (@R2 + @R3)'),
      {
        of: 'gain',
        formula: '-\\frac{@R2}{@R1}',
        text: 'The gain on the flat side; the stage inverts.',
      },
      { of: 'boost', formula: '\\frac{@R3}{@R2 + @R3}', text: 'The shelf over the flat side.' },
    ]),
  about:
    'At high frequencies C1 puts R3 beside the feedback resistor and the gain falls to a lower shelf.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'C1 moves the edge; R3 the height.',
  sensitivity: 'Low: level and edge follow the parts one to one.',
  avoid: 'A plain low-pass is simpler where nothing of the top shall stay.',
};
