import * as z from 'zod';
import { THERMAL_VOLTS } from '@/core/constants';
import { defineDevice } from '../device';
import { boundedExp, boundedExpSlope, criticalVolts, depletion, limitJunction } from '../junction';
import { net, notNegative, partBase, positive } from '../part';
import { parameters } from '../stamper';

export const transistorModel = z.strictObject({
  polarity: z.enum(['npn', 'pnp']),
  saturationAmps: positive,
  betaForward: positive,
  betaReverse: positive.default(1),
  earlyVolts: positive.optional(),
  baseEmitterFarads: notNegative.default(0),
  baseCollectorFarads: notNegative.default(0),
  transitSeconds: notNegative.default(0),
});

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('transistor'),
  collector: net,
  base: net,
  emitter: net,
  model: transistorModel,
});

export type Transistor = z.infer<typeof schema>;

/** Built-in voltage and grading of both depletion layers. */
export const LAYER = { volts: 0.75, grading: 0.33 };

/**
 * Bipolar transistor in the transport form of Ebers and Moll (J. J. Ebers, J. L. Moll, Proc. IRE 42,
 * 1954; transport form: I. Getreu, "Modeling the Bipolar Transistor", 1976, chapter 2):
 * iT = Is (exp(vBE/VT) - exp(vBC/VT)) (1 - vBC/VA),  iB = iF/betaF + iR/betaR.
 */
export const transistor = defineDevice<Transistor>({
  kind: 'transistor',
  schema,
  terminals: ({ collector, base, emitter }) => ({ collector, base, emitter }),
  conducts: ({ collector, base, emitter }) => [[collector, base, emitter]],
  stamp(part, s) {
    const m = part.model;
    parameters(s, m);
    const sign = m.polarity === 'npn' ? 1 : -1;
    const critical = criticalVolts(m.saturationAmps, 1);
    const perEarly = m.earlyVolts ? 1 / m.earlyVolts : 0;
    const be = { ...LAYER, farads: m.baseEmitterFarads };
    const bc = { ...LAYER, farads: m.baseCollectorFarads };
    const nets = [s.net(part.collector), s.net(part.base), s.net(part.emitter)];
    s.nonlinear({
      inputs: nets,
      rows: nets,
      // Shot noise of collector and base current; a current leaves `from` and enters `to`.
      noise: [
        { from: 0, to: 2, shotOf: 0 },
        { from: 1, to: 2, shotOf: 1 },
      ],
      evaluate(x, out) {
        const c = x[0];
        const b = x[1];
        const e = x[2];
        const vbe = sign * (b - e);
        const vbc = sign * (b - c);
        const forward = m.saturationAmps * (boundedExp(vbe / THERMAL_VOLTS) - 1);
        const reverse = m.saturationAmps * (boundedExp(vbc / THERMAL_VOLTS) - 1);
        const gf = (m.saturationAmps * boundedExpSlope(vbe / THERMAL_VOLTS)) / THERMAL_VOLTS;
        const gr = (m.saturationAmps * boundedExpSlope(vbc / THERMAL_VOLTS)) / THERMAL_VOLTS;
        const early = 1 - vbc * perEarly;
        const transport = (forward - reverse) * early;
        const ic = transport - reverse / m.betaReverse;
        const ib = forward / m.betaForward + reverse / m.betaReverse;
        // Derivatives by vbe and vbc.
        const icBe = gf * early;
        const icBc = -gr * early - (forward - reverse) * perEarly - gr / m.betaReverse;
        const ibBe = gf / m.betaForward;
        const ibBc = gr / m.betaReverse;
        spread(out.current, out.conductance, sign, ic, ib, icBe, icBc, ibBe, ibBc);

        const [qbe, cbe] = depletion(be, vbe);
        const [qbc, cbc] = depletion(bc, vbc);
        const chargeBe = qbe + m.transitSeconds * forward;
        const capacitanceBe = cbe + m.transitSeconds * gf;
        // The collector's charge is the base-collector layer's, seen from the other side.
        spread(
          out.charge,
          out.capacitance,
          sign,
          -qbc,
          chargeBe + qbc,
          0,
          -cbc,
          capacitanceBe,
          cbc,
        );
      },
      limit(v, previous) {
        const be0 = sign * (v[1] - v[2]);
        const be1 = limitJunction(be0, sign * (previous[1] - previous[2]), THERMAL_VOLTS, critical);
        const bc0 = sign * (v[1] - v[0]);
        const bc1 = limitJunction(bc0, sign * (previous[1] - previous[0]), THERMAL_VOLTS, critical);
        if (be0 === be1 && bc0 === bc1) return false;
        v[2] += sign * (be0 - be1);
        v[0] += sign * (bc0 - bc1);
        return true;
      },
    });
  },
});

/** Collector and base quantities to the three terminals, with derivatives by the terminals' voltages. */
function spread(
  value: Float64Array,
  slope: Float64Array,
  sign: number,
  c: number,
  b: number,
  cBe: number,
  cBc: number,
  bBe: number,
  bBc: number,
): void {
  value[0] = sign * c;
  value[1] = sign * b;
  value[2] = -sign * (c + b);
  // vbe = sign (b - e), vbc = sign (b - c): the signs cancel in the products.
  slope[0] = -cBc;
  slope[1] = cBe + cBc;
  slope[2] = -cBe;
  slope[3] = -bBc;
  slope[4] = bBe + bBc;
  slope[5] = -bBe;
  slope[6] = cBc + bBc;
  slope[7] = -(cBe + cBc + bBe + bBc);
  slope[8] = cBe + bBe;
}
