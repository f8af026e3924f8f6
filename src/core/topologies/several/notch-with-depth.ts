import { checkAsk, type Topology, type StageFigures, type Values } from '../topology';
import { because } from '../why';
import { BAND_SUMMED_WHY, bandSummedFigures, bandSummedValues } from './band-summed';
import { BAND_SUMMED } from './band-summed-drawing';

function figures(values: Values): StageFigures {
  const f = bandSummedFigures(values);
  return { ...f, depth: 1 - f.own.k };
}

export const notchWithDepth: Topology = {
  id: 'notch-with-depth',
  name: 'Notch with independent depth',
  short: 'notch, depth set',
  asWords: 'notches of set depth',
  kind: 'notch',
  order: 2,
  opAmps: 2,
  gain: 'inverting',
  limits: { q: [0.5, 15], gain: [-10, -0.1], depth: [1e-6, 0.95] },
  drawing: BAND_SUMMED,
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    const depth = ask.depth ?? 1e-6;
    checkAsk(this, { ...ask, gain, depth });
    return bandSummedValues(ask.f0Hz, ask.q!, gain, 1 - depth, choice);
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      ...BAND_SUMMED_WHY,
      {
        of: 'depth',
        formula: '1 - \\frac{@H @R4}{@R5}',
        text: 'What the band-pass does not take away; nothing else depends on it.',
      },
    ]),
  about: 'The band-pass is taken from the input once. R5 alone says how much of the centre stays.',
  outputs: 'The second op-amp’s output, inverted; the band-pass is there too.',
  tuning: 'R2 moves the centre, R3 the width, R5 the depth, each alone.',
  sensitivity: 'The depth is a difference: one per cent of R5 leaves one per cent.',
  avoid: 'For a null below 1 % use parts that match, or trim R5.',
};
