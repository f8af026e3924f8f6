import type { OpAmp, OpAmpModel } from './op-amp-model';
import { parameters, type Stamper } from '../stamper';
import {
  CLAMP_GAIN,
  CLAMP_VOLTS,
  gainStageLaw,
  outputLimitLaw,
  RAIL_BEND_AMPS,
  railDrawLaw,
} from './op-amp-limit-laws';

interface Unknowns {
  plus: number;
  minus: number;
  out: number;
  /** Voltage of the gain stage, and what drives the output resistance. */
  u: number;
  driven: number;
  /** Output current and its equation. */
  i: number;
}

/** Output resistance assumed where a current limit needs one. */
const LEAST_OHMS = 1;

/**
 * What a real op-amp cannot do: its input stage gives a bounded current, so that the gain stage
 * slews; its gain stage stays between the rails; its output gives a bounded current. All bounds are
 * smooth and leave small signals as they were.
 *
 * (Slewing as a saturating input stage: J. E. Solomon, "The Monolithic Op Amp: A Tutorial Study",
 * IEEE J. Solid-State Circuits SC-9, 1974.)
 */
export function stampLimits(
  s: Stamper,
  part: OpAmp,
  model: OpAmpModel,
  { plus, minus, out, u, driven, i }: Unknowns,
): void {
  const { headroomVolts, outputAmps } = model;
  const slews = s.mode === 'large-signal' && model.slewVoltsPerSecond !== undefined;
  parameters(s, { headroomVolts, outputAmps, ...model.supply });
  if (slews) s.parameter('slewVoltsPerSecond', model.slewVoltsPerSecond!);
  const railPlus = part.supplyPlus === undefined ? undefined : s.net(part.supplyPlus);
  const railMinus = part.supplyMinus === undefined ? undefined : s.net(part.supplyMinus);
  const headroom = model.headroomVolts ?? 0;
  const high = model.supply?.plusVolts ?? Infinity;
  const low = model.supply?.minusVolts ?? -Infinity;
  // The input difference at which the input stage is spent: slew rate / (2 pi GBW).
  const spent = slews ? model.slewVoltsPerSecond! / (2 * Math.PI * model.gainBandwidthHz) : 1;
  s.nonlinear({
    inputs: [plus, minus, u, railPlus ?? -1, railMinus ?? -1],
    rows: [u],
    noise: [],
    evaluate(x, values) {
      const v = x[2];
      const vp = x[3];
      const vm = x[4];
      const t = Math.tanh((x[0] - x[1]) / spent);
      const upper = softOver(v - ((railPlus === undefined ? high : vp) - headroom));
      const lower = softOver((railMinus === undefined ? low : vm) + headroom - v);
      values.current[0] = -spent * t + CLAMP_GAIN * (upper.value - lower.value);
      values.conductance[0] = t * t - 1;
      values.conductance[1] = 1 - t * t;
      values.conductance[2] = CLAMP_GAIN * (upper.slope + lower.slope);
      values.conductance[3] = railPlus === undefined ? 0 : -CLAMP_GAIN * upper.slope;
      values.conductance[4] = railMinus === undefined ? 0 : -CLAMP_GAIN * lower.slope;
    },
    law: gainStageLaw({
      spent,
      high: (railPlus === undefined ? high : 0) - headroom,
      low: (railMinus === undefined ? low : 0) + headroom,
      railPlus: railPlus !== undefined,
      railMinus: railMinus !== undefined,
    }),
  });

  if (model.outputAmps === undefined) {
    s.resistive(i, driven, 1);
    s.resistive(i, out, -1);
    if (model.outputOhms) s.resistive(i, i, -1, [s.parameter('outputOhms', model.outputOhms), 1]);
  } else {
    const most = model.outputAmps;
    parameters(s, { outputOhms: model.outputOhms });
    const ohms = Math.max(model.outputOhms ?? 0, LEAST_OHMS);
    s.resistive(i, i, -1);
    s.nonlinear({
      inputs: [driven, out],
      rows: [i],
      noise: [],
      evaluate(x, values) {
        const t = Math.tanh((x[0] - x[1]) / (ohms * most));
        values.current[0] = most * t;
        values.conductance[0] = (1 - t * t) / ohms;
        values.conductance[1] = -values.conductance[0];
      },
      law: outputLimitLaw(most, ohms),
    });
  }
  if (railPlus !== undefined || railMinus !== undefined)
    drawFromSupplies(s, i, railPlus ?? -1, railMinus ?? -1);
}

/** The output current comes from the positive rail when it leaves the output, from the negative when it enters. */
function drawFromSupplies(s: Stamper, i: number, railPlus: number, railMinus: number): void {
  s.nonlinear({
    inputs: [i],
    rows: [railPlus, railMinus],
    noise: [],
    evaluate(x, values) {
      const amps = x[0];
      const root = Math.sqrt(amps * amps + RAIL_BEND_AMPS * RAIL_BEND_AMPS);
      values.current[0] = (amps + root) / 2;
      values.current[1] = (amps - root) / 2;
      values.conductance[0] = (1 + amps / root) / 2;
      values.conductance[1] = (1 - amps / root) / 2;
    },
    law: railDrawLaw,
  });
}

/** Zero well below 0, x well above it, smooth between; never overflows. */
function softOver(x: number): { value: number; slope: number } {
  const scaled = x / CLAMP_VOLTS;
  if (scaled > 40) return { value: x, slope: 1 };
  if (scaled < -40 || Number.isNaN(scaled)) return { value: 0, slope: 0 };
  const e = Math.exp(scaled);
  return { value: CLAMP_VOLTS * Math.log1p(e), slope: e / (1 + e) };
}
