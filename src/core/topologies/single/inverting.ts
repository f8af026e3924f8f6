import { FLAT_HZ } from '../pad';
import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';
import { invertingDrawing } from './inverting-drawing';

const figures = ({ R1, R2 }: Values): StageFigures => ({ f0Hz: FLAT_HZ, gain: -R2 / R1 });

export const inverting: Topology = {
  id: 'inverting',
  name: 'Inverting amplifier',
  short: 'gain, inverting',
  asWords: 'an inverting amplifier',
  kind: 'gain',
  order: 0,
  opAmps: 1,
  gain: 'inverting',
  limits: { gain: [-1000, -0.001] },
  drawing: invertingDrawing('resistor', 'resistor'),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    const R1 = choice?.ohms ?? 10_000;
    return { R1, R2: -gain * R1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      { of: 'R1', formula: '-\\frac{@R2}{@gain}', text: 'Also the load that the source sees.' },
      { of: 'R2', formula: '-@gain @R1', text: 'Carries the same current as R1.' },
      {
        of: 'gain',
        formula: '-\\frac{@R2}{@R1}',
        text: 'The inverting input stays at 0 V, so both resistors carry one current.',
        rule: 'Rule of thumb: the gain holds up to the gain-bandwidth over the gain. Exact: over 1 + R2/R1.',
      },
    ]),
  about:
    'The op-amp turns its output so that its inverting input stays at 0 V; two resistors set the gain.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'R2 sets the gain; R1 the gain and the input impedance.',
  sensitivity: 'The gain follows the ratio of the two.',
  avoid: 'A source with resistance adds it to R1 and loses gain.',
};
