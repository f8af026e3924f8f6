import { sketch } from '@/core/drawing/sketch';
import { checkAsk, startCapacitor, TWO_PI, type Topology } from '../topology';
import { TWIN_T_PARTS, TWIN_T_WHY, twinTFigures, twinTValues } from '../twin-t-parts';
import { because } from '../why';

export const twinTNotch: Topology = {
  id: 'twin-t-notch',
  name: 'Twin-T notch, buffered',
  short: 'notch, twin-T',
  asWords: 'a buffered twin-T',
  kind: 'notch',
  order: 2,
  opAmps: 1,
  gain: 'unity',
  needsMatching: true,
  limits: { gain: [1, 1] },
  drawing: sketch(`in 0,6 / 0,6 1,6 / ${TWIN_T_PARTS} / ground 8,14 / 8,14 6,14 / 8,14 10,14
    ground 20,14 / 20,14 18,14 / 20,14 22,14 / 27,6 30,6 / op-amp A1 30,6 plus / 34,7 38,7 / out 38,7
    30,8 30,11 36,11 36,7`),
  design(ask, choice) {
    checkAsk(this, ask);
    const C = startCapacitor(ask.f0Hz, choice);
    return twinTValues(1 / (TWO_PI * ask.f0Hz * C), C);
  },
  figures: (values) => twinTFigures(values, 0),
  explain: (values) => because(values, twinTFigures(values, 0), TWIN_T_WHY),
  about: 'The twin-T with a follower behind it, so that nothing loads it and the null stays deep.',
  outputs: 'The op-amp’s output.',
  tuning: 'Trim one resistor of each T for the deepest null.',
  sensitivity: 'One per cent of mismatch leaves about 1/400 of the signal.',
  avoid: 'Q is only a quarter; take the bootstrapped form for a narrow notch.',
};
