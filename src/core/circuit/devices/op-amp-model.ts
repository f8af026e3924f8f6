import * as z from 'zod';
import { finite, net, notNegative, partBase, positive } from '../part';

export const opAmpModelSchema = z.strictObject({
  gainBandwidthHz: positive,
  dcGainDb: finite.min(20, 'must be at least 20 dB').max(200, 'must be at most 200 dB'),
  secondPoleHz: positive.optional(),
  outputOhms: notNegative.optional(),
  inputOhms: positive.optional(),
  inputFarads: positive.optional(),
  inputVoltageNoise: notNegative.optional(),
  inputCurrentNoise: notNegative.optional(),
  /** Below these frequencies the noise densities rise as 1/f. */
  voltageNoiseCornerHz: positive.optional(),
  currentNoiseCornerHz: positive.optional(),
  offsetVolts: finite.optional(),
  /** Current into each input. */
  biasAmps: finite.optional(),
  slewVoltsPerSecond: positive.optional(),
  /** Rails; the output stays `headroomVolts` inside them. */
  supply: z
    .strictObject({ plusVolts: finite, minusVolts: finite })
    .refine((s) => s.plusVolts > s.minusVolts, { error: 'needs plusVolts above minusVolts' })
    .optional(),
  headroomVolts: notNegative.optional(),
  /** The inputs work as long as they stay so far inside the rails. */
  inputHeadroomVolts: notNegative.optional(),
  /** With less noise gain than this its loop is not calm: it is not unity-gain stable. */
  leastNoiseGain: positive.min(1, 'must be at least 1').optional(),
  /** Greatest output current, either way. */
  outputAmps: positive.optional(),
});

export type OpAmpModel = z.infer<typeof opAmpModelSchema>;

export const opAmpSchema = z.strictObject({
  ...partBase,
  kind: z.literal('op-amp'),
  inPlus: net,
  inMinus: net,
  out: net,
  /** Nets that feed it; the output current is drawn from them and they bound the output. */
  supplyPlus: net.optional(),
  supplyMinus: net.optional(),
  model: z.union([z.literal('ideal'), opAmpModelSchema], {
    error: 'must be "ideal" or an op-amp model',
  }),
});

export type OpAmp = z.infer<typeof opAmpSchema>;
