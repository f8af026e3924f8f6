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

export const stateVariableLowPass: Topology = {
  ...STATE_VARIABLE_WORDS,
  id: 'state-variable-low-pass',
  family: 'state-variable',
  name: 'State-variable low-pass',
  short: '2nd low-pass, state variable',
  asWords: 'state-variable loops',
  kind: 'low-pass',
  order: 2,
  opAmps: 3,
  gain: 'inverting',
  limits: { q: [0.5, 50], gain: [-20, -0.05] },
  drawing: sketch(STATE_VARIABLE_DRAWINGS.low),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    return stateVariableValues(ask.f0Hz, ask.q!, -gain, choice);
  },
  figures: (values) => loopFigures(values, 'low'),
  explain: (values) =>
    because(values, loopFigures(values, 'low'), [
      ...STATE_VARIABLE_WHY,
      { of: 'gain', formula: '-\\frac{@R2}{@R1}', text: 'At d.c.; the low output is inverted.' },
    ]),
  outputs: 'Low at the third op-amp; high at the first and band at the second stand ready.',
  roles: STATE_VARIABLE_ROLES,
  blocks: STATE_VARIABLE_BLOCKS,
};
