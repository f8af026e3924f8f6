import * as z from 'zod';
import { defineDevice } from '../device';
import { net, notNegative, partBase, positive } from '../part';
import { admittance } from '../stamper';
import { thermalNoise } from '../thermal-noise';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('capacitor'),
  a: net,
  b: net,
  farads: positive,
  esrOhms: notNegative.optional(),
});

export const capacitor = defineDevice<z.infer<typeof schema>>({
  kind: 'capacitor',
  schema,
  terminals: ({ a, b }) => ({ a, b }),
  conducts: () => [],
  conductsAbove: ({ a, b }) => [[a, b]],
  passive: true,
  stores: 'farads',
  stamp(part, s) {
    const a = s.net(part.a);
    const b = s.net(part.b);
    const farads = s.parameter('farads', part.farads);
    if (!part.esrOhms) {
      admittance(s, 'reactive', a, b, [farads, 1]);
      return;
    }
    // A series resistance has an inner net of its own between it and the plates.
    const inner = s.unknown('inner net');
    admittance(s, 'reactive', a, inner, [farads, 1]);
    const esr = s.parameter('esrOhms', part.esrOhms);
    admittance(s, 'resistive', inner, b, [esr, -1]);
    thermalNoise(s, inner, b, esr);
  },
});
