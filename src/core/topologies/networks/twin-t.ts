import { sketch } from '@/core/drawing/sketch';
import { checkAsk, startCapacitor, TWO_PI, type Topology } from '../topology';
import { TWIN_T_PARTS, twinTFigures, TWIN_T_WHY, twinTValues } from '../twin-t-parts';
import { because } from '../why';

export const twinT: Topology = {
  id: 'twin-t',
  name: 'Twin-T notch',
  short: 'RC notch',
  asWords: 'a twin-T',
  kind: 'notch',
  order: 2,
  opAmps: 0,
  gain: 'unity',
  needsMatching: true,
  limits: { gain: [1, 1] },
  drawing: sketch(`in 0,6 / 0,6 1,6 / ${TWIN_T_PARTS} / ground 8,14 / 8,14 6,14 / 8,14 10,14
    ground 20,14 / 20,14 18,14 / 20,14 22,14 / 27,6 29,6 / out 29,6`),
  design(ask, choice) {
    checkAsk(this, ask);
    const C = startCapacitor(ask.f0Hz, choice);
    return twinTValues(1 / (TWO_PI * ask.f0Hz * C), C);
  },
  figures: (values) => twinTFigures(values, 0),
  explain: (values) => because(values, twinTFigures(values, 0), TWIN_T_WHY),
  about:
    'Two T networks, one that passes lows and one that passes highs, meet in opposite phase at one frequency and cancel there completely, if the parts match.',
  outputs: 'One, where both Ts end; feed it into a buffer or a high impedance.',
  tuning: 'All parts must move together; depth is trimmed by one resistor of each T.',
  sensitivity:
    'One per cent of mismatch leaves about 1/400 of the signal: match, do not buy tighter.',
  avoid:
    'Q is only a quarter: the notch takes an octave either side along. Bootstrap it for a narrow one.',
};
