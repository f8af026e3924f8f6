import * as z from 'zod';
import { THERMAL_VOLTS } from '@/core/constants';
import { defineDevice } from '../device';
import { net, notNegative, partBase, positive } from '../part';
import { parameters } from '../stamper';

const schema = z
  .strictObject({
    ...partBase,
    kind: z.literal('ota'),
    inPlus: net,
    inMinus: net,
    out: net,
    /** Fixed bias current ... */
    biasAmps: notNegative.optional(),
    /** ... or one that follows the voltage of a net: biasSiemens times it, never below zero. */
    bias: net.optional(),
    biasSiemens: positive.optional(),
    /** Current of linearising diodes across the inputs; they load the inputs and stretch the tanh. */
    diodeAmps: positive.optional(),
  })
  .refine((p) => (p.biasAmps === undefined) !== (p.bias === undefined), {
    error: 'needs either biasAmps or bias with biasSiemens',
    path: ['biasAmps'],
  })
  .refine((p) => p.bias === undefined || p.biasSiemens !== undefined, {
    error: 'is missing: it turns the voltage of the net “bias” into amperes',
    path: ['biasSiemens'],
  });

export type Ota = z.infer<typeof schema>;

/** Width over which a controlled bias current bends to zero, amperes. */
export const BEND_AMPS = 1e-9;

/**
 * Operational transconductance amplifier: i = Ib tanh((v+ - v-) / (2 VT)), out of `out`: the
 * differential pair's law (P. R. Gray, R. G. Meyer, "Analysis and Design of Analog Integrated
 * Circuits", section 3.5). Linearising diodes take (Id/2) tanh of the same argument from the inputs.
 */
export const ota = defineDevice<Ota>({
  kind: 'ota',
  schema,
  terminals: ({ inPlus, inMinus, out, bias }) => ({
    inPlus,
    inMinus,
    out,
    ...(bias === undefined ? {} : { bias }),
  }),
  // Fed back it holds its output; where it does not, the equations say so.
  conducts: ({ inPlus, inMinus, out, diodeAmps }) => [
    [out, '@ground'],
    ...(diodeAmps ? [[inPlus, inMinus]] : []),
  ],
  drives: ({ out }) => [out],
  stamp(part, s) {
    const { biasAmps, biasSiemens, diodeAmps } = part;
    parameters(s, { biasAmps, biasSiemens, diodeAmps });
    const plus = s.net(part.inPlus);
    const minus = s.net(part.inMinus);
    const controlled = part.bias !== undefined;
    const fixed = part.biasAmps ?? 0;
    const siemens = part.biasSiemens ?? 0;
    s.nonlinear({
      inputs: controlled ? [plus, minus, s.net(part.bias!)] : [plus, minus],
      rows: [s.net(part.out)],
      noise: [{ from: 0, to: -1, shotOfBias: true }],
      evaluate(x, out) {
        const t = Math.tanh((x[0] - x[1]) / (2 * THERMAL_VOLTS));
        const slope = (1 - t * t) / (2 * THERMAL_VOLTS);
        let bias = fixed;
        if (controlled) {
          // A smooth hinge: never negative, and straight above a few nanoamperes.
          const raw = siemens * x[2];
          const root = Math.sqrt(raw * raw + BEND_AMPS * BEND_AMPS);
          bias = (raw + root) / 2;
          out.conductance[2] = (-siemens * (1 + raw / root) * t) / 2;
        }
        out.current[0] = -bias * t;
        out.conductance[0] = -bias * slope;
        out.conductance[1] = bias * slope;
        out.bias = bias;
      },
    });
    if (part.diodeAmps === undefined) return;
    const diodes = part.diodeAmps / 2;
    s.nonlinear({
      inputs: [plus, minus],
      rows: [plus, minus],
      noise: [],
      evaluate(x, out) {
        const t = Math.tanh((x[0] - x[1]) / (2 * THERMAL_VOLTS));
        const slope = (1 - t * t) / (2 * THERMAL_VOLTS);
        out.current[0] = diodes * t;
        out.current[1] = -diodes * t;
        out.conductance[0] = diodes * slope;
        out.conductance[1] = -diodes * slope;
        out.conductance[2] = -diodes * slope;
        out.conductance[3] = diodes * slope;
      },
    });
  },
});
