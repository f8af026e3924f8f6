import { firstOrderDrawing } from '../first-order-drawing';
import { explainFirstOrder, firstOrderCorner, firstOrderValues } from '../first-order';
import { checkAsk, type Topology } from '../topology';

export const bufferedRcHighPass: Topology = {
  id: 'buffered-rc-high-pass',
  family: 'buffered-rc',
  name: 'Buffered RC high-pass',
  short: '1st high-pass',
  asWords: 'a buffered RC',
  kind: 'high-pass',
  order: 1,
  opAmps: 1,
  gain: 'unity',
  limits: { gain: [1, 1] },
  suits: ({ alone }) => (alone ? 1 : 2),
  drawing: firstOrderDrawing('high-pass', true),
  design(ask, choice) {
    checkAsk(this, ask);
    return firstOrderValues(ask, choice);
  },
  figures: (values) => ({ f0Hz: firstOrderCorner(values), gain: 1 }),
  explain: explainFirstOrder,
  about:
    'An RC high-pass with a follower behind it, so that the next stage does not load it: the odd section of an odd-order filter.',
  outputs: 'The follower’s output.',
  tuning: 'R1 and C1 move the corner alike; the gain stays one.',
  sensitivity: 'One per cent of either part is one per cent of f0.',
  avoid:
    'R1 carries the op-amp’s bias current: with a large R1 use a FET-input op-amp or expect an offset.',
};
