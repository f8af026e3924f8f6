import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';
import {
  CONVERTER_DRAWINGS,
  CONVERTER_WHY,
  CONVERTER_WORDS,
  converterFigures,
  converterValues,
} from './impedance-biquad';

const figures = (values: Values): StageFigures => converterFigures(values);

export const impedanceBiquadNotch: Topology = {
  ...CONVERTER_WORDS,
  id: 'impedance-biquad-notch',
  family: 'impedance-biquad',
  name: 'Generalised-impedance notch',
  short: 'notch, made coil',
  asWords: 'made-coil stages',
  kind: 'notch',
  order: 2,
  opAmps: 3,
  gain: 'unity',
  limits: { q: [0.3, 60], gain: [1, 1] },
  suits: ({ q = 0 }) => (q < 0.5 ? 3 : 0),
  drawing: CONVERTER_DRAWINGS.notch,
  design(ask, choice) {
    checkAsk(this, ask);
    return converterValues(ask.f0Hz, ask.q!, choice);
  },
  figures,
  explain: (values) => because(values, figures(values), [...CONVERTER_WHY]),
  outputs: 'The follower’s output; the resonance itself must not be loaded.',
  roles: { R1: 'R', R3: 'R', R4: 'R', R5: 'R', R6: 'QR' },
};
