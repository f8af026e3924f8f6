import * as z from 'zod';
import { defineDevice } from '../device';
import { net, partBase, positive } from '../part';
import { admittance } from '../stamper';
import { thermalNoise } from '../thermal-noise';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('switch'),
  a: net,
  b: net,
  closed: z.boolean(),
  closedOhms: positive.default(0.01),
  openOhms: positive.default(1e12),
});

/** A contact: a small resistance closed, a very large one open. */
export const switchDevice = defineDevice<z.infer<typeof schema>>({
  kind: 'switch',
  schema,
  terminals: ({ a, b }) => ({ a, b }),
  conducts: ({ a, b }) => [[a, b]],
  passive: true,
  stamp(part, s) {
    const ohms = part.closed
      ? s.parameter('closedOhms', part.closedOhms)
      : s.parameter('openOhms', part.openOhms);
    const [a, b] = [s.net(part.a), s.net(part.b)];
    admittance(s, 'resistive', a, b, [ohms, -1]);
    thermalNoise(s, a, b, ohms);
  },
});
