import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';
import {
  CONVERTER_DRAWINGS,
  CONVERTER_WHY,
  CONVERTER_WORDS,
  converterFigures,
  converterValues,
} from './impedance-biquad';

const figures = (values: Values): StageFigures => ({
  ...converterFigures(values),
  gain: 1 + values.R4 / values.R5,
});

export const impedanceBiquadBandPass: Topology = {
  ...CONVERTER_WORDS,
  id: 'impedance-biquad-band-pass',
  family: 'impedance-biquad',
  name: 'Generalised-impedance band-pass',
  short: 'band-pass, made coil',
  asWords: 'made-coil stages',
  kind: 'band-pass',
  order: 2,
  opAmps: 2,
  gain: 'given',
  limits: { q: [0.3, 60], gain: [2, 2] },
  drawing: CONVERTER_DRAWINGS.band,
  design(ask, choice) {
    checkAsk(this, ask);
    return converterValues(ask.f0Hz, ask.q!, choice);
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      ...CONVERTER_WHY,
      {
        of: 'gain',
        formula: '1 + \\frac{@R4}{@R5}',
        text: 'The op-amp’s output stands at twice the resonance’s level.',
      },
    ]),
  outputs: 'The upper op-amp’s output, at twice the level.',
  roles: { R1: 'R', R3: 'R', R4: 'R', R5: 'R', R6: 'QR' },
};
