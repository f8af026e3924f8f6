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

/** H = -(R2/(R1+R3)) (1 + s C1 R3) / (1 + s C1 R1 R3/(R1+R3)) */
function figures({ R1, R2, R3, C1 }: Values): StageFigures {
  return shelfFigures('low-shelf', -R2 / (R1 + R3), C1 * R3, (C1 * R1 * R3) / (R1 + R3));
}

export const lowShelfCut: Topology = {
  id: 'low-shelf-cut',
  family: 'shelf-cut',
  name: 'Low shelf, cutting',
  short: 'bass cut',
  asWords: 'a cutting bass shelf',
  kind: 'low-shelf',
  order: 1,
  opAmps: 1,
  gain: 'inverting',
  limits: { gain: [-20, -0.05], boost: [0.033, 0.98] },
  drawing: invertingDrawing('seriesThenParallel', 'resistor'),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    const { tauZero, tauPole } = shelfTimes('low-shelf', ask);
    const C1 = startCapacitor(ask.f0Hz, choice);
    const R3 = tauZero / C1;
    const R1 = 1 / (C1 / tauPole - 1 / R3);
    return { R1, R2: -gain * R1, R3, C1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '\\frac{@R3 @boost}{1 - @boost}',
        text: 'All there is before the op-amp when C1 is a short.',
      },
      { of: 'R2', formula: '-@gain @R1', text: 'Sets the level on the flat side.' },
      {
        of: 'R3',
        formula: '\\frac{1}{2\\pi @f0 @C1\\sqrt{@boost}}',
        text: 'Stands in the way of low frequencies, which C1 does not let pass.',
      },
      {
        of: 'C1',
        formula: '\\frac{1}{2\\pi @f0 @R3\\sqrt{@boost}}',
        text: 'The capacitor started from.',
      },
      shelfWhy('@C1 @R3', '\\frac{@C1 @R1 @R3}{@R1 + @R3}'),
      {
        of: 'gain',
        formula: '-\\frac{@R2}{@R1}',
        text: 'The gain on the flat side; the stage inverts.',
      },
      { of: 'boost', formula: '\\frac{@R1}{@R1 + @R3}', text: 'The shelf over the flat side.' },
    ]),
  about:
    'The lifting shelf turned inside out: the network stands in the input, so that low frequencies meet more resistance.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'C1 moves the edge; R3 the height (and the edge a little).',
  sensitivity: 'Low: level and edge follow the parts one to one.',
  avoid: 'The input impedance falls to R1 at high frequencies.',
};
