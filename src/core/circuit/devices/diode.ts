import * as z from 'zod';
import { THERMAL_VOLTS } from '@/core/constants';
import { defineDevice } from '../device';
import { boundedExp, boundedExpSlope, criticalVolts, depletion, limitJunction } from '../junction';
import { net, notNegative, partBase, positive } from '../part';
import { parameters } from '../stamper';

export const diodeModel = z.strictObject({
  saturationAmps: positive,
  emissionCoefficient: positive.default(1),
  /** Depletion capacitance at zero bias. */
  junctionFarads: notNegative.default(0),
  /** Stored charge per ampere. */
  transitSeconds: notNegative.default(0),
});

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('diode'),
  anode: net,
  cathode: net,
  model: diodeModel,
});

export type Diode = z.infer<typeof schema>;

/** Built-in voltage and grading of the depletion layer. */
export const LAYER = { volts: 0.75, grading: 0.4 };

/** i = Is (exp(v / (n VT)) - 1), with depletion and diffusion charge (W. Shockley, Bell Syst. Tech. J. 28, 1949). */
export const diode = defineDevice<Diode>({
  kind: 'diode',
  schema,
  terminals: ({ anode, cathode }) => ({ anode, cathode }),
  conducts: ({ anode, cathode }) => [[anode, cathode]],
  stamp(part, s) {
    parameters(s, part.model);
    const { saturationAmps, emissionCoefficient, junctionFarads, transitSeconds } = part.model;
    const vt = emissionCoefficient * THERMAL_VOLTS;
    const critical = criticalVolts(saturationAmps, emissionCoefficient);
    const layer = { ...LAYER, farads: junctionFarads };
    const nets = [s.net(part.anode), s.net(part.cathode)];
    s.nonlinear({
      inputs: nets,
      rows: nets,
      noise: [{ from: 0, to: 1, shotOf: 0 }],
      evaluate(x, out) {
        const v = x[0] - x[1];
        const i = saturationAmps * (boundedExp(v / vt) - 1);
        const g = (saturationAmps * boundedExpSlope(v / vt)) / vt;
        const [qj, cj] = depletion(layer, v);
        pair(out.current, out.conductance, i, g);
        pair(out.charge, out.capacitance, qj + transitSeconds * i, cj + transitSeconds * g);
      },
      limit(v, previous) {
        const wanted = v[0] - v[1];
        const allowed = limitJunction(wanted, previous[0] - previous[1], vt, critical);
        if (allowed === wanted) return false;
        v[0] -= wanted - allowed;
        return true;
      },
    });
  },
});

/** Write a two-terminal quantity and its derivative. */
function pair(value: Float64Array, slope: Float64Array, x: number, dx: number): void {
  value[0] = x;
  value[1] = -x;
  slope[0] = dx;
  slope[1] = -dx;
  slope[2] = -dx;
  slope[3] = dx;
}
