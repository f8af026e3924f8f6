import * as z from 'zod';
import { defineDevice } from '../device';
import { finite, net, partBase } from '../part';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('transconductor'),
  from: net,
  to: net,
  inPlus: net,
  inMinus: net,
  siemens: finite,
});

/** Draws siemens (v(inPlus) - v(inMinus)) out of the net `from` and pushes it into the net `to`. */
export const transconductor = defineDevice<z.infer<typeof schema>>({
  kind: 'transconductor',
  schema,
  terminals: ({ from, to, inPlus, inMinus }) => ({ from, to, inPlus, inMinus }),
  // Around a loop it can hold a net; a loop that does not is found when the equations are solved.
  conducts: ({ from, to }) => [[from, to]],
  drives: ({ from, to }) => [from, to],
  stamp(part, s) {
    if (part.siemens === 0) return;
    const gm = s.parameter('siemens', part.siemens);
    const [from, to] = [s.net(part.from), s.net(part.to)];
    const [plus, minus] = [s.net(part.inPlus), s.net(part.inMinus)];
    s.resistive(from, plus, 1, [gm, 1]);
    s.resistive(from, minus, -1, [gm, 1]);
    s.resistive(to, plus, -1, [gm, 1]);
    s.resistive(to, minus, 1, [gm, 1]);
  },
});
