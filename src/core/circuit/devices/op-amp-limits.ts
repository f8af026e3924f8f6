import type { OpAmp, OpAmpModel } from './op-amp-model';
import { parameters, type StampMode, type Stamper } from '../stamper';

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

/** Softness of the output clamp, volts, and how hard it holds against the input stage. */
export const CLAMP_VOLTS = 0.01;
export const CLAMP_GAIN = 10;
/** Current over which the output stage changes from one rail to the other, amperes. */
export const RAIL_BEND_AMPS = 1e-6;
/** Output resistance assumed where a current limit needs one. */
const LEAST_OHMS = 1;

/** Where the gain stage ends. */
export interface Limits {
  /** The input difference at which the input stage is spent, volts. */
  spent: number;
  /** Furthest voltages: above a rail, or above ground; infinite where there is no end. */
  high: number;
  low: number;
  railPlus: boolean;
  railMinus: boolean;
}

export function limitsOf(part: OpAmp, model: OpAmpModel, mode: StampMode): Limits {
  const headroom = model.headroomVolts ?? 0;
  const [railPlus, railMinus] = [part.supplyPlus !== undefined, part.supplyMinus !== undefined];
  const slews = mode === 'large-signal' && model.slewVoltsPerSecond !== undefined;
  return {
    // Slew rate / (2 pi GBW).
    spent: slews ? model.slewVoltsPerSecond! / (2 * Math.PI * model.gainBandwidthHz) : 1,
    high: (railPlus ? 0 : (model.supply?.plusVolts ?? Infinity)) - headroom,
    low: (railMinus ? 0 : (model.supply?.minusVolts ?? -Infinity)) + headroom,
    railPlus,
    railMinus,
  };
}

/** Output resistance of an output with a limited current. */
export const outputOhmsOf = ({ outputOhms }: OpAmpModel): number =>
  Math.max(outputOhms ?? 0, LEAST_OHMS);

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
  const { spent, high, low, railPlus, railMinus } = limitsOf(part, model, s.mode);
  const upperRail = railPlus ? s.net(part.supplyPlus!) : -1;
  const lowerRail = railMinus ? s.net(part.supplyMinus!) : -1;
  s.nonlinear({
    inputs: [plus, minus, u, upperRail, lowerRail],
    rows: [u],
    noise: [],
    evaluate(x, values) {
      const v = x[2];
      const vp = x[3];
      const vm = x[4];
      const t = Math.tanh((x[0] - x[1]) / spent);
      const upper = softOver(v - ((railPlus ? vp : 0) + high));
      const lower = softOver((railMinus ? vm : 0) + low - v);
      values.current[0] = -spent * t + CLAMP_GAIN * (upper.value - lower.value);
      values.conductance[0] = t * t - 1;
      values.conductance[1] = 1 - t * t;
      values.conductance[2] = CLAMP_GAIN * (upper.slope + lower.slope);
      values.conductance[3] = railPlus ? -CLAMP_GAIN * upper.slope : 0;
      values.conductance[4] = railMinus ? -CLAMP_GAIN * lower.slope : 0;
    },
  });

  if (model.outputAmps === undefined) {
    s.resistive(i, driven, 1);
    s.resistive(i, out, -1);
    if (model.outputOhms) s.resistive(i, i, -1, [s.parameter('outputOhms', model.outputOhms), 1]);
  } else {
    const most = model.outputAmps;
    parameters(s, { outputOhms: model.outputOhms });
    const ohms = outputOhmsOf(model);
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
    });
  }
  if (railPlus || railMinus) drawFromSupplies(s, i, upperRail, lowerRail);
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
