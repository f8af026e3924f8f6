import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';
import {
  TWO_INTEGRATOR_BLOCKS,
  TWO_INTEGRATOR_DRAWINGS,
  TWO_INTEGRATOR_WHY,
  TWO_INTEGRATOR_WORDS,
  twoIntegratorLoop,
  twoIntegratorValues,
} from './two-integrator';

function figures(values: Values): StageFigures {
  const loop = twoIntegratorLoop(values);
  return { f0Hz: loop.f0Hz, q: loop.q, gain: loop.low };
}

export const twoIntegratorLowPass: Topology = {
  ...TWO_INTEGRATOR_WORDS,
  id: 'two-integrator-low-pass',
  family: 'two-integrator',
  name: 'Two-integrator low-pass, summer merged',
  short: '2nd low-pass, two integrators',
  asWords: 'two-integrator loops',
  kind: 'low-pass',
  order: 2,
  opAmps: 3,
  gain: 'settable',
  limits: { q: [0.3, 60], gain: [0.05, 50] },
  suits: ({ q = 0 }) => (q > 9 ? 5 : 0),
  drawing: TWO_INTEGRATOR_DRAWINGS.low,
  design(ask, choice) {
    const gain = ask.gain ?? 1;
    checkAsk(this, { ...ask, gain });
    return twoIntegratorValues(ask.f0Hz, ask.q!, 1 / gain, choice);
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '\\frac{@R3 @R5}{@gain @R6}',
        text: 'Brings the input in; it sets the gain and nothing else.',
      },
      ...TWO_INTEGRATOR_WHY,
      {
        of: 'gain',
        formula: '\\frac{@R3 @R5}{@R1 @R6}',
        text: 'At d.c., upright at the second op-amp.',
      },
    ]),
  roles: { R1: 'R/gain', R2: 'QR', R3: 'R', R4: 'R' },
  blocks: TWO_INTEGRATOR_BLOCKS,
};
