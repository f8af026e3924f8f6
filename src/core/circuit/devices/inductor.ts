import * as z from 'zod';
import { defineDevice } from '../device';
import { net, notNegative, partBase, positive } from '../part';
import { branch } from '../stamper';
import { seriesThermalNoise } from '../thermal-noise';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('inductor'),
  a: net,
  b: net,
  henries: positive,
  dcrOhms: notNegative.optional(),
});

export const inductor = defineDevice<z.infer<typeof schema>>({
  kind: 'inductor',
  schema,
  terminals: ({ a, b }) => ({ a, b }),
  conducts: ({ a, b }) => [[a, b]],
  fixesVoltage: 'at-dc',
  passive: true,
  stores: 'henries',
  stamp(part, s) {
    // v = r i + L di/dt
    const i = s.unknown('current');
    branch(s, s.net(part.a), s.net(part.b), i);
    s.reactive(i, i, -1, [s.parameter('henries', part.henries), 1]);
    if (part.dcrOhms) {
      const dcr = s.parameter('dcrOhms', part.dcrOhms);
      s.resistive(i, i, -1, [dcr, 1]);
      seriesThermalNoise(s, i, dcr);
    }
  },
});
