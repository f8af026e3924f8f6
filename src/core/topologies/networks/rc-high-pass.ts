import { firstOrderDrawing } from '../first-order-drawing';
import { explainFirstOrder, firstOrderCorner, firstOrderValues } from '../first-order';
import { checkAsk, type Topology } from '../topology';

export const rcHighPass: Topology = {
  id: 'rc-high-pass',
  family: 'rc',
  name: 'RC high-pass',
  short: 'RC high-pass',
  asWords: 'an RC network',
  kind: 'high-pass',
  order: 1,
  opAmps: 0,
  gain: 'unity',
  limits: { gain: [1, 1] },
  suits: ({ alone, gainDb }) => (alone && gainDb === 0 ? 2 : 0),
  drawing: firstOrderDrawing('high-pass', false),
  design(ask, choice) {
    checkAsk(this, ask);
    return firstOrderValues(ask, choice);
  },
  figures: (values) => ({ f0Hz: firstOrderCorner(values), gain: 1 }),
  explain: explainFirstOrder,
  about:
    'At low frequencies the capacitor hardly conducts and little reaches the resistor; above the corner it is as good as a wire. It also keeps d.c. out of what follows.',
  outputs: 'One, across the resistor.',
  tuning: 'R1 and C1 move the corner alike; nothing else can be set.',
  sensitivity: 'One per cent of either part is one per cent of f0.',
  avoid:
    'The load stands in parallel with R1 and raises the corner: keep it at least ten times R1.',
};
