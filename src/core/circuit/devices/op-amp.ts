import { defineDevice } from '../device';
import { admittance, type Law, type Stamper } from '../stamper';
import { stampLimits } from './op-amp-limits';
import { opAmpSchema, type OpAmp, type OpAmpModel } from './op-amp-model';

/**
 * Op-amp, ideal or with one or two poles: A(s) = A0 / (1 + s A0 / (2 pi GBW)) [ / (1 + s / w2) ].
 *
 * The equation of its output is written with 1/A(s), which stays linear in s:
 * (v(out) + outputOhms i) (1/A0 + s / (2 pi GBW)) - (v+ - v-) = 0, where i leaves the output.
 */
export const opAmp = defineDevice<OpAmp>({
  kind: 'op-amp',
  schema: opAmpSchema,
  terminals: ({ inPlus, inMinus, out, supplyPlus, supplyMinus }) => ({
    inPlus,
    inMinus,
    out,
    ...(supplyPlus === undefined ? {} : { supplyPlus }),
    ...(supplyMinus === undefined ? {} : { supplyMinus }),
  }),
  // The output is held against ground, wherever the ground net is called.
  conducts: ({ out, model, inPlus, inMinus }) => [
    [out, '@ground'],
    ...(model !== 'ideal' && model.inputOhms ? [[inPlus, inMinus]] : []),
  ],
  drives: ({ out }) => [out],
  holds: ({ out }) => [out],
  stamp(part, s) {
    const { model } = part;
    const [plus, minus, out] = [s.net(part.inPlus), s.net(part.inMinus), s.net(part.out)];
    const i = s.unknown('output current');
    s.resistive(out, i, -1);
    if (model === 'ideal') {
      s.resistive(i, plus, -1);
      s.resistive(i, minus, 1);
      return;
    }
    stampInputs(s, model, plus, minus);
    const gain = s.derived('dcGain', [s.parameter('dcGainDb', model.dcGainDb)], gainOfDb);
    const bandwidth = s.parameter('gainBandwidthHz', model.gainBandwidthHz);
    const perRadian = 1 / (2 * Math.PI);
    const limited =
      (s.mode === 'large-signal' && model.slewVoltsPerSecond !== undefined) ||
      model.supply !== undefined ||
      model.outputAmps !== undefined ||
      part.supplyPlus !== undefined ||
      part.supplyMinus !== undefined;

    if (!limited && model.secondPoleHz === undefined) {
      s.resistive(i, plus, -1);
      s.resistive(i, minus, 1);
      s.resistive(i, out, 1, [gain, -1]);
      s.reactive(i, out, perRadian, [bandwidth, -1]);
      if (model.outputOhms) {
        const ro = s.parameter('outputOhms', model.outputOhms);
        s.resistive(i, i, 1, [ro, 1], [gain, -1]);
        s.reactive(i, i, perRadian, [ro, 1], [bandwidth, -1]);
      }
      stampInputErrors(s, model, i);
      return;
    }

    // Its inner net has an equation of its own: u (1/A0 + s / (2 pi GBW)) = v+ - v-.
    const u = s.unknown('gain stage');
    s.resistive(u, u, 1, [gain, -1]);
    s.reactive(u, u, perRadian, [bandwidth, -1]);
    let driven = u;
    if (model.secondPoleHz !== undefined) {
      driven = s.unknown('second pole');
      s.resistive(driven, driven, 1);
      s.resistive(driven, u, -1);
      s.reactive(driven, driven, perRadian, [s.parameter('secondPoleHz', model.secondPoleHz), -1]);
    }
    stampInputErrors(s, model, u);
    if (limited) {
      stampLimits(s, part, model, { plus, minus, out, u, driven, i });
      return;
    }
    s.resistive(u, plus, -1);
    s.resistive(u, minus, 1);
    s.resistive(i, driven, 1);
    s.resistive(i, out, -1);
    if (model.outputOhms) s.resistive(i, i, -1, [s.parameter('outputOhms', model.outputOhms), 1]);
  },
});

const gainOfDb: Law = ([db]) => {
  const value = 10 ** (db / 20);
  return { value, slopes: [(value * Math.LN10) / 20] };
};

/** Input impedance between the inputs, current noise and bias current of each. */
function stampInputs(s: Stamper, model: OpAmpModel, plus: number, minus: number): void {
  if (model.inputOhms)
    admittance(s, 'resistive', plus, minus, [s.parameter('inputOhms', model.inputOhms), -1]);
  if (model.inputFarads)
    admittance(s, 'reactive', plus, minus, [s.parameter('inputFarads', model.inputFarads), 1]);
  if (model.inputCurrentNoise) {
    const density = {
      scale: 1,
      factors: [[s.parameter('inputCurrentNoise', model.inputCurrentNoise), 2]],
    } as const;
    const corner = cornerOf(s, 'currentNoiseCornerHz', model.currentNoiseCornerHz);
    for (const input of [plus, minus])
      s.noise({ cause: 'input current', plus: input, minus: -1, density, corner });
  }
  if (model.biasAmps) {
    const dc = s.parameter('biasAmps', model.biasAmps);
    for (const row of [plus, minus]) s.source({ row, sign: -1, dc, acMagnitude: 0, acDegrees: 0 });
  }
}

/** Offset and voltage noise stand in series with the non-inverting input: on the gain equation. */
function stampInputErrors(s: Stamper, model: OpAmpModel, row: number): void {
  if (model.offsetVolts) {
    const dc = s.parameter('offsetVolts', model.offsetVolts);
    s.source({ row, sign: 1, dc, acMagnitude: 0, acDegrees: 0 });
  }
  if (model.inputVoltageNoise) {
    const volts = s.parameter('inputVoltageNoise', model.inputVoltageNoise);
    s.noise({
      cause: 'input voltage',
      plus: row,
      minus: -1,
      density: { scale: 1, factors: [[volts, 2]] },
      corner: cornerOf(s, 'voltageNoiseCornerHz', model.voltageNoiseCornerHz),
    });
  }
}

const cornerOf = (s: Stamper, name: string, hz?: number) =>
  hz === undefined ? undefined : s.parameter(name, hz);
