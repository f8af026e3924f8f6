import * as z from 'zod';
import { THERMAL_VOLTS } from '@/core/constants';
import { defineDevice } from '../device';
import { boundedExp, boundedExpSlope, criticalVolts, limitJunction } from '../junction';
import { net, notNegative, partBase, positive } from '../part';
import { parameters } from '../stamper';

export const jfetModel = z.strictObject({
  polarity: z.enum(['n', 'p']),
  /** Drain current with the gate at the source. */
  saturatedDrainAmps: positive,
  /** Gate-source voltage, as a positive number, at which the channel closes. */
  pinchOffVolts: positive,
  /** Channel-length modulation, 1/V. */
  lambdaPerVolt: notNegative.default(0),
  gateSaturationAmps: positive.default(1e-14),
  gateSourceFarads: notNegative.default(0),
  gateDrainFarads: notNegative.default(0),
});

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('jfet'),
  drain: net,
  gate: net,
  source: net,
  model: jfetModel,
});

export type Jfet = z.infer<typeof schema>;

/**
 * Junction field-effect transistor, square law (H. Shichman, D. A. Hodges, IEEE J. Solid-State
 * Circuits SC-3, 1968), symmetrical in drain and source, with its gate junctions.
 */
export const jfet = defineDevice<Jfet>({
  kind: 'jfet',
  schema,
  terminals: ({ drain, gate, source }) => ({ drain, gate, source }),
  conducts: ({ drain, gate, source }) => [[drain, gate, source]],
  stamp(part, s) {
    const m = part.model;
    parameters(s, m);
    const sign = m.polarity === 'n' ? 1 : -1;
    const critical = criticalVolts(m.gateSaturationAmps, 1);
    const beta = m.saturatedDrainAmps / m.pinchOffVolts ** 2;
    const nets = [s.net(part.drain), s.net(part.gate), s.net(part.source)];
    s.nonlinear({
      inputs: nets,
      rows: nets,
      noise: [{ from: 0, to: 2, thermalOfSlope: 1 }],
      evaluate(x, out) {
        const d = x[0];
        const g = x[1];
        const so = x[2];
        out.conductance.fill(0);
        out.capacitance.fill(0);
        // With drain and source changed over the channel conducts the other way.
        const turned = sign * (d - so) < 0;
        const [hi, lo] = turned ? [2, 0] : [0, 2];
        const vds = Math.abs(d - so);
        const vgs = sign * (turned ? g - d : g - so);
        const over = vgs + m.pinchOffVolts;
        let [id, gm, gds] = [0, 0, 0];
        if (over > 0) {
          const lengthen = 1 + m.lambdaPerVolt * vds;
          const [shape, byGate, byDrain] =
            vds < over
              ? [vds * (2 * over - vds), 2 * vds, 2 * (over - vds)]
              : [over * over, 2 * over, 0];
          id = beta * shape * lengthen;
          gm = beta * byGate * lengthen;
          gds = beta * (byDrain * lengthen + shape * m.lambdaPerVolt);
        }
        out.current[hi] = sign * id;
        out.current[lo] = -sign * id;
        out.current[1] = 0;
        for (const [row, way] of [
          [hi, 1],
          [lo, -1],
        ]) {
          out.conductance[3 * row + hi] += way * gds;
          out.conductance[3 * row + 1] += way * gm;
          out.conductance[3 * row + lo] -= way * (gds + gm);
        }
        gateJunction(
          out.current,
          out.conductance,
          out.capacitance,
          0,
          sign,
          g - d,
          m.gateSaturationAmps,
          m.gateDrainFarads,
        );
        gateJunction(
          out.current,
          out.conductance,
          out.capacitance,
          2,
          sign,
          g - so,
          m.gateSaturationAmps,
          m.gateSourceFarads,
        );
        out.charge[0] = -m.gateDrainFarads * (g - d);
        out.charge[2] = -m.gateSourceFarads * (g - so);
        out.charge[1] = -(out.charge[0] + out.charge[2]);
      },
      limit(v, previous) {
        let held = false;
        for (const other of [0, 2]) {
          const wanted = sign * (v[1] - v[other]);
          const before = sign * (previous[1] - previous[other]);
          const allowed = limitJunction(wanted, before, THERMAL_VOLTS, critical);
          if (allowed === wanted) continue;
          v[other] += sign * (wanted - allowed);
          held = true;
        }
        return held;
      },
    });
  },
});

/** Add the diode from the gate (terminal 1) to another terminal, and its constant capacitance. */
function gateJunction(
  current: Float64Array,
  conductance: Float64Array,
  capacitance: Float64Array,
  other: number,
  sign: number,
  v: number,
  saturation: number,
  farads: number,
): void {
  const i = sign * saturation * (boundedExp((sign * v) / THERMAL_VOLTS) - 1);
  const g = (saturation * boundedExpSlope((sign * v) / THERMAL_VOLTS)) / THERMAL_VOLTS;
  current[1] += i;
  current[other] -= i;
  for (const [matrix, x] of [
    [conductance, g],
    [capacitance, farads],
  ] as const) {
    matrix[4] += x;
    matrix[3 * other + other] += x;
    matrix[3 + other] -= x;
    matrix[3 * other + 1] -= x;
  }
}
