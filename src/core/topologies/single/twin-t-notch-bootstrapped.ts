import { sketch } from '@/core/drawing/sketch';
import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { TWIN_T_PARTS, TWIN_T_WHY, twinTFigures, twinTValues } from '../twin-t-parts';
import { because } from '../why';

const fedBack = ({ R5, R6 }: Values) => R6 / (R5 + R6);
const figures = (values: Values): StageFigures => ({
  ...twinTFigures(values, fedBack(values)),
  own: { k: fedBack(values) },
});
const DIVIDER = 10_000;

export const twinTNotchBootstrapped: Topology = {
  id: 'twin-t-notch-bootstrapped',
  name: 'Twin-T notch, bootstrapped',
  short: 'notch, narrow twin-T',
  asWords: 'a bootstrapped twin-T',
  kind: 'notch',
  order: 2,
  opAmps: 2,
  gain: 'unity',
  needsMatching: true,
  limits: { q: [0.26, 20], gain: [1, 1] },
  drawing:
    sketch(`in 0,6 / 0,6 1,6 / ${TWIN_T_PARTS} / 6,14 10,14 / 8,14 8,17 20,17 20,14 / 18,14 22,14
    27,6 30,6 / op-amp A1 30,6 plus / 34,7 40,7 / out 40,7 / 30,8 30,11 36,11 36,7
    38,7 38,12 / resistor R5 38,12 down right / 38,16 38,18 / resistor R6 38,18 down right / ground 38,22
    38,17 26,17 26,20 28,20 / op-amp A2 28,20 plus
    32,21 34,21 34,24 20,24 20,17 / 28,22 26,22 26,24`),
  /** Q = 1/(4(1-k)): the fraction k of the output that drives the feet. */
  design(ask, choice) {
    checkAsk(this, ask);
    const C = startCapacitor(ask.f0Hz, choice);
    const k = 1 - 1 / (4 * ask.q!);
    const total = choice?.ohms ?? DIVIDER;
    return { ...twinTValues(1 / (TWO_PI * ask.f0Hz * C), C), R5: total * (1 - k), R6: total * k };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      ...TWIN_T_WHY.filter((w) => w.of !== 'Q'),
      {
        of: 'R5',
        formula: '\\frac{@R6}{4 @Q - 1}',
        text: 'Upper part of the bootstrap’s divider.',
      },
      {
        of: 'R6',
        formula: '@R5 (4 @Q - 1)',
        text: 'Lower part: the larger, the narrower the notch.',
      },
      {
        of: 'Q',
        formula: '\\frac{1}{4\\left(1 - @k\\right)}',
        text: 'The feet follow the output and the Ts see less to pull against.',
        rule: 'Rule of thumb: depth does not suffer. Exact: with unmatched parts what is left at the bottom grows by the same factor as Q.',
      },
    ]),
  about:
    'The feet of both Ts are driven by a part of the output: outside the null they go along with the signal and take nothing from it, so that the notch becomes narrow.',
  outputs: 'The first op-amp’s output.',
  tuning: 'R5 and R6 set the width alone; one resistor of each T the depth.',
  sensitivity: 'Mismatch is multiplied by Q: for Q = 5 trim the null, whatever the parts.',
  avoid: 'Above Q of 10 the null drifts away with the weather: take a state-variable notch.',
};
