import * as z from 'zod';
import { defineDevice } from '../device';
import { net, partBase, positive } from '../part';
import { admittance } from '../stamper';
import { thermalNoise } from '../thermal-noise';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('resistor'),
  a: net,
  b: net,
  ohms: positive,
});

export const resistor = defineDevice<z.infer<typeof schema>>({
  kind: 'resistor',
  schema,
  terminals: ({ a, b }) => ({ a, b }),
  conducts: ({ a, b }) => [[a, b]],
  passive: true,
  takes: ({ a, b, ohms }, volts) => (volts(a) - volts(b)) ** 2 / ohms,
  stamp(part, s) {
    const [a, b] = [s.net(part.a), s.net(part.b)];
    const ohms = s.parameter('ohms', part.ohms);
    admittance(s, 'resistive', a, b, [ohms, -1]);
    thermalNoise(s, a, b, ohms);
  },
});
