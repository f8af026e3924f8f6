import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';
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

/** High and low summed: H = (R10/R9)(R2/R1) (1 + (s/wz)^2) / (...), wz = w0 sqrt(R8 R3/(R9 R2)...). */
function figures(v: Values): StageFigures {
  const loop = loopFigures(v, 'low');
  // out = -(R10/R8) high - (R10/R9) low; at the zero both cancel.
  const zeroHz = loop.f0Hz * Math.sqrt((v.R8 * v.R2) / (v.R9 * v.R3));
  return { ...loop, gain: (-loop.gain * v.R10) / v.R9, zeroHz };
}

const SUM = 10_000;

export const stateVariableNotch: Topology = {
  ...STATE_VARIABLE_WORDS,
  id: 'state-variable-notch',
  family: 'state-variable',
  name: 'State-variable notch',
  short: 'notch, state variable',
  asWords: 'state-variable notches',
  kind: 'notch',
  order: 2,
  opAmps: 4,
  gain: 'settable',
  limits: { q: [0.5, 60], gain: [0.02, 50], zero: [0.05, 20] },
  suits: () => 2,
  drawing: sketch(STATE_VARIABLE_DRAWINGS.notch),
  design(ask, choice) {
    const gain = ask.gain ?? 1;
    checkAsk(this, { ...ask, gain });
    const ratio = ((ask.zeroHz ?? ask.f0Hz) / ask.f0Hz) ** 2;
    // The loop runs at unity; the fourth op-amp makes the gain.
    return {
      ...stateVariableValues(ask.f0Hz, ask.q!, 1, choice),
      R8: SUM * ratio,
      R9: SUM,
      R10: SUM * gain,
    };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      ...STATE_VARIABLE_WHY,
      {
        of: 'R8',
        formula: '@R9\\frac{@R3}{@R2}\\left(\\frac{@fz}{@f0}\\right)^2',
        text: 'How much of the high output: equal to R9 puts the zero at f0, more of it above.',
      },
      { of: 'R9', text: 'Brings the low output to the sum.' },
      { of: 'R10', formula: '\\frac{@gain @R9 @R1}{@R2}', text: 'The sum’s feedback resistor.' },
      { of: 'gain', formula: '\\frac{@R10 @R2}{@R9 @R1}', text: 'At d.c., upright.' },
    ]),
  outputs:
    'Notch at the fourth op-amp; high, band and low stand ready. With the zero above f0 it is a low-pass notch, below a high-pass notch.',
  tuning: 'R6 and R7 together move everything; R4 the width; R8 the zero against the corner.',
  roles: { ...STATE_VARIABLE_ROLES, R8: '(f_z/f₀)²·R', R9: 'R', R10: 'gain·R' },
  blocks: {
    ...STATE_VARIABLE_BLOCKS,
    row: [
      ...STATE_VARIABLE_BLOCKS.row,
      { text: 'high + low', out: 'notch', parts: ['R8', 'R9', 'R10'] },
    ],
  },
};
