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

export const stateVariableHighPass: Topology = {
  ...STATE_VARIABLE_WORDS,
  id: 'state-variable-high-pass',
  family: 'state-variable',
  name: 'State-variable high-pass',
  short: '2nd high-pass, state variable',
  asWords: 'state-variable loops',
  kind: 'high-pass',
  order: 2,
  opAmps: 3,
  gain: 'inverting',
  limits: { q: [0.5, 50], gain: [-20, -0.05] },
  suits: ({ q = 0 }) => (q > 9 ? 5 : 0),
  drawing: sketch(STATE_VARIABLE_DRAWINGS.high),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    return stateVariableValues(ask.f0Hz, ask.q!, -gain, choice);
  },
  figures: (values) => loopFigures(values, 'high'),
  explain: (values) =>
    because(values, loopFigures(values, 'high'), [
      ...STATE_VARIABLE_WHY,
      {
        of: 'gain',
        formula: '-\\frac{@R3}{@R1}',
        text: 'Far above f0; the high output is inverted.',
      },
    ]),
  outputs: 'High at the first op-amp; band at the second and low at the third stand ready.',
  roles: STATE_VARIABLE_ROLES,
  blocks: STATE_VARIABLE_BLOCKS,
};
