import * as z from 'zod';
import { THERMAL_VOLTS } from '@/core/constants';
import { defineDevice } from '../device';
import {
  boundedExp,
  boundedExpLaw,
  boundedExpSlope,
  criticalVolts,
  limitJunction,
  MOST_MOVE,
} from '../junction';
import type { Flow, Law } from '../law';
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

/**
 * Junction field-effect transistor, square law (H. Shichman, D. A. Hodges, IEEE J. Solid-State
 * Circuits SC-3, 1968), symmetrical in drain and source, with its gate junctions.
 */
export const jfet = defineDevice<z.infer<typeof schema>>({
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
      law: lawOf(m),
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

/**
 * The same for compiled steps. With A and D what the gate lies above pinch-off as seen from source and
 * drain, and nothing where it lies below, the square law is beta (A^2 - D^2) (1 + lambda |vds|), in
 * both directions, triode and saturation alike.
 */
function lawOf(m: z.infer<typeof jfetModel>): Law {
  const drop = (minus: number) => ({ plus: 1, minus, bend: THERMAL_VOLTS, most: MOST_MOVE });
  return {
    name: `jfet${m.gateDrainFarads ? ' drain' : ''}${m.gateSourceFarads ? ' source' : ''}`,
    drops: [drop(0), drop(2)],
    constants: [
      m.polarity === 'n' ? 1 : -1,
      m.saturatedDrainAmps / m.pinchOffVolts ** 2,
      m.pinchOffVolts,
      m.lambdaPerVolt,
      m.gateSaturationAmps,
      m.gateSaturationAmps / THERMAL_VOLTS,
      m.gateDrainFarads,
      m.gateSourceFarads,
    ],
    write(a, [gd, gs], [sense, beta, pinchOff, lambda, amps, siemens, drainFarads, sourceFarads]) {
      const none = a.number(0);
      const vgd = a.mul(sense, gd);
      const vgs = a.mul(sense, gs);
      const fromSource = a.max(a.add(vgs, pinchOff), none);
      const fromDrain = a.max(a.add(vgd, pinchOff), none);
      const difference = a.sub(a.mul(fromSource, fromSource), a.mul(fromDrain, fromDrain));
      const lengthen = a.add(a.number(1), a.mul(lambda, a.abs(a.sub(vgs, vgd))));
      const byLength = a.mul(lambda, a.abs(difference));
      const slope = (over: typeof gd) =>
        a.mul(beta, a.add(a.mul(a.add(over, over), lengthen), byLength));
      const channel: Flow<typeof gd> = {
        from: 0,
        to: 2,
        current: a.mul(a.mul(sense, beta), a.mul(difference, lengthen)),
        conductance: [a.neg(slope(fromDrain)), slope(fromSource)],
      };
      const gate = (
        to: number,
        drop: typeof gd,
        volts: typeof gd,
        farads: typeof gd,
        stored: number,
      ): Flow<typeof gd> => {
        const junction = boundedExpLaw(a, a.mul(volts, a.number(1 / THERMAL_VOLTS)));
        const byDrop = (x: typeof gd) => (to === 0 ? [x, undefined] : [undefined, x]);
        return {
          from: 1,
          to,
          current: a.mul(a.mul(sense, amps), junction.excess),
          conductance: byDrop(a.mul(siemens, junction.slope)),
          ...(stored ? { charge: a.mul(farads, drop), capacitance: byDrop(farads) } : {}),
        };
      };
      return [
        channel,
        gate(0, gd, vgd, drainFarads, m.gateDrainFarads),
        gate(2, gs, vgs, sourceFarads, m.gateSourceFarads),
      ];
    },
  };
}

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
