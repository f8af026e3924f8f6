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
  return { f0Hz: loop.f0Hz, q: loop.q, gain: loop.band };
}

export const twoIntegratorBandPass: Topology = {
  ...TWO_INTEGRATOR_WORDS,
  id: 'two-integrator-band-pass',
  family: 'two-integrator',
  name: 'Two-integrator band-pass, summer merged',
  short: 'band-pass, two integrators',
  asWords: 'two-integrator loops',
  kind: 'band-pass',
  order: 2,
  opAmps: 3,
  gain: 'inverting',
  limits: { q: [0.3, 60], gain: [-50, -0.05] },
  suits: ({ q = 0 }) => (q < 1 ? 3 : 0),
  drawing: TWO_INTEGRATOR_DRAWINGS.band,
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    return twoIntegratorValues(ask.f0Hz, ask.q!, ask.q! / -gain, choice);
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '-\\frac{@R2}{@gain}',
        text: 'Brings the input in; it sets the gain and nothing else.',
      },
      ...TWO_INTEGRATOR_WHY,
      { of: 'gain', formula: '-\\frac{@R2}{@R1}', text: 'At the centre, inverted.' },
    ]),
  roles: { R1: 'QR/gain', R2: 'QR', R3: 'R', R4: 'R' },
  blocks: TWO_INTEGRATOR_BLOCKS,
};
