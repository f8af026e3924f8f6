import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type Topology } from '../topology';
import { because } from '../why';
import {
  loopFigures,
  STATE_VARIABLE_BLOCKS,
  STATE_VARIABLE_DRAWINGS,
  STATE_VARIABLE_ROLES,
  STATE_VARIABLE_WHY,
  STATE_VARIABLE_WORDS,
  stateVariableValues,
} from './state-variable';

export const stateVariableBandPass: Topology = {
  ...STATE_VARIABLE_WORDS,
  id: 'state-variable-band-pass',
  family: 'state-variable',
  name: 'State-variable band-pass',
  short: 'band-pass, state variable',
  asWords: 'state-variable loops',
  kind: 'band-pass',
  order: 2,
  opAmps: 3,
  gain: 'settable',
  limits: { q: [0.5, 50], gain: [0.05, 100] },
  suits: () => 1,
  drawing: sketch(STATE_VARIABLE_DRAWINGS.band),
  design(ask, choice) {
    const gain = ask.gain ?? 1;
    checkAsk(this, { ...ask, gain });
    return stateVariableValues(ask.f0Hz, ask.q!, gain / ask.q!, choice);
  },
  figures: (values) => loopFigures(values, 'band'),
  explain: (values) =>
    because(values, loopFigures(values, 'band'), [
      ...STATE_VARIABLE_WHY,
      { of: 'gain', formula: '\\frac{@H @Q}{2\\pi @f0 @R6 @C1}', text: 'At the centre, upright.' },
    ]),
  outputs: 'Band at the second op-amp; high at the first and low at the third stand ready.',
  roles: STATE_VARIABLE_ROLES,
  blocks: STATE_VARIABLE_BLOCKS,
};
