import { firstOrderDrawing } from '../first-order-drawing';
import { explainFirstOrder, firstOrderCorner, firstOrderValues } from '../first-order';
import { checkAsk, type Topology } from '../topology';

export const bufferedRcLowPass: Topology = {
  id: 'buffered-rc-low-pass',
  family: 'buffered-rc',
  name: 'Buffered RC low-pass',
  short: '1st low-pass',
  asWords: 'a buffered RC',
  kind: 'low-pass',
  order: 1,
  opAmps: 1,
  gain: 'unity',
  limits: { gain: [1, 1] },
  suits: ({ alone }) => (alone ? 1 : 2),
  drawing: firstOrderDrawing('low-pass', true),
  design(ask, choice) {
    checkAsk(this, ask);
    return firstOrderValues(ask, choice);
  },
  figures: (values) => ({ f0Hz: firstOrderCorner(values), gain: 1 }),
  explain: explainFirstOrder,
  about:
    'An RC low-pass with a follower behind it, so that the next stage does not load it: the odd section of an odd-order filter.',
  outputs: 'The follower’s output, ready for any load the op-amp drives.',
  tuning: 'R1 and C1 move the corner alike; the gain stays one.',
  sensitivity: 'One per cent of either part is one per cent of f0.',
  avoid:
    'The source must drive R1 and C1 directly; a high source resistance adds to R1 and lowers the corner.',
};
