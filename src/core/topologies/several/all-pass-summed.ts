import { checkAsk, type Topology } from '../topology';
import { because } from '../why';
import { BAND_SUMMED_WHY, bandSummedFigures, bandSummedValues } from './band-summed';
import { BAND_SUMMED } from './band-summed-drawing';

export const allPassSummed: Topology = {
  id: 'all-pass-summed',
  name: 'Second-order all-pass, summed',
  short: '2nd all-pass, summed',
  asWords: 'summed all-passes',
  kind: 'all-pass',
  order: 2,
  opAmps: 2,
  gain: 'inverting',
  needsMatching: true,
  limits: { q: [0.3, 15], gain: [-10, -0.1] },
  suits: () => 1,
  drawing: BAND_SUMMED,
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    return bandSummedValues(ask.f0Hz, ask.q!, gain, 2, choice);
  },
  figures: bandSummedFigures,
  explain: (values) => because(values, bandSummedFigures(values), BAND_SUMMED_WHY),
  about:
    'Twice the band-pass is taken from the input: the level stays, the phase turns through a whole circle.',
  outputs: 'The second op-amp’s output, inverted; the band-pass is there too.',
  tuning: 'R2 moves f0, R3 the Q, R5 flattens the level at f0.',
  sensitivity: 'An error of one per cent in R5 is two per cent of level at f0.',
  avoid: 'For Q below 1 the single op-amp form is simpler.',
};
