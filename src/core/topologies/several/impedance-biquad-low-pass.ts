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

export const impedanceBiquadLowPass: Topology = {
  ...CONVERTER_WORDS,
  id: 'impedance-biquad-low-pass',
  family: 'impedance-biquad',
  name: 'Generalised-impedance low-pass',
  short: '2nd low-pass, made coil',
  asWords: 'made-coil stages',
  kind: 'low-pass',
  order: 2,
  opAmps: 3,
  gain: 'unity',
  limits: { q: [0.3, 60], gain: [1, 1] },
  drawing: CONVERTER_DRAWINGS.low,
  design(ask, choice) {
    checkAsk(this, ask);
    return converterValues(ask.f0Hz, ask.q!, choice);
  },
  figures,
  explain: (values) => because(values, figures(values), [...CONVERTER_WHY]),
  outputs: 'The follower’s output; the resonance itself must not be loaded.',
  roles: { R1: 'R', R3: 'R', R4: 'R', R5: 'R', R6: 'QR' },
};
