import { firstOrderDrawing } from '../first-order-drawing';
import { explainFirstOrder, firstOrderCorner, firstOrderValues } from '../first-order';
import { checkAsk, type Topology } from '../topology';

export const rcLowPass: Topology = {
  id: 'rc-low-pass',
  family: 'rc',
  name: 'RC low-pass',
  short: 'RC low-pass',
  asWords: 'an RC network',
  kind: 'low-pass',
  order: 1,
  opAmps: 0,
  gain: 'unity',
  limits: { gain: [1, 1] },
  suits: ({ alone, gainDb }) => (alone && gainDb === 0 ? 2 : 0),
  drawing: firstOrderDrawing('low-pass', false),
  design(ask, choice) {
    checkAsk(this, ask);
    return firstOrderValues(ask, choice);
  },
  figures: (values) => ({ f0Hz: firstOrderCorner(values), gain: 1 }),
  explain: explainFirstOrder,
  about:
    'The capacitor’s impedance falls as frequency rises, so resistor and capacitor divide high notes down and let low ones through: 6 dB less for each octave above the corner.',
  outputs: 'One, across the capacitor; its impedance is R1’s below the corner.',
  tuning: 'R1 and C1 move the corner alike; nothing else can be set.',
  sensitivity: 'One per cent of either part is one per cent of f0.',
  avoid:
    'Whatever follows loads it: keep the load at least ten times R1, or put a buffer behind it.',
};
