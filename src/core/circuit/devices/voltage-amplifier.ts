import * as z from 'zod';
import { defineDevice } from '../device';
import { finite, net, partBase } from '../part';
import { branch } from '../stamper';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('voltage-amplifier'),
  plus: net,
  minus: net,
  inPlus: net,
  inMinus: net,
  gain: finite,
});

/** v(plus) - v(minus) = gain (v(inPlus) - v(inMinus)); no input current, no output resistance. */
export const voltageAmplifier = defineDevice<z.infer<typeof schema>>({
  kind: 'voltage-amplifier',
  schema,
  terminals: ({ plus, minus, inPlus, inMinus }) => ({ plus, minus, inPlus, inMinus }),
  conducts: ({ plus, minus }) => [[plus, minus]],
  fixesVoltage: 'always',
  holds: ({ plus, minus }) => [plus, minus],
  stamp(part, s) {
    const i = s.unknown('current');
    branch(s, s.net(part.plus), s.net(part.minus), i);
    if (part.gain === 0) return;
    const gain = s.parameter('gain', part.gain);
    s.resistive(i, s.net(part.inPlus), -1, [gain, 1]);
    s.resistive(i, s.net(part.inMinus), 1, [gain, 1]);
  },
});
