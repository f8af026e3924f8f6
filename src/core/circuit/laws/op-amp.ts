import type { OpAmp } from '../devices/op-amp-model';
import {
  CLAMP_GAIN,
  CLAMP_VOLTS,
  limitsOf,
  outputOhmsOf,
  RAIL_BEND_AMPS,
  type Limits,
} from '../devices/op-amp-limits';
import type { StampMode } from '../stamper';
import type { Arithmetic, Law } from './law';

/** The limits that an op-amp's stamp writes, in its order. */
export function opAmpLaws(part: OpAmp, mode: StampMode): Law[] {
  const { model, supplyPlus, supplyMinus } = part;
  if (model === 'ideal') return [];
  const { outputAmps } = model;
  const onRails = supplyPlus !== undefined || supplyMinus !== undefined;
  return [
    gainStageLaw(limitsOf(part, model, mode)),
    ...(outputAmps === undefined ? [] : [outputLimitLaw(outputAmps, outputOhmsOf(model))]),
    ...(onRails ? [railDrawLaw] : []),
  ];
}

/** Inputs: plus, minus, gain stage, positive and negative rail; row: the gain stage. */
function gainStageLaw({ spent, high, low, railPlus, railMinus }: Limits): Law {
  const above = Number.isFinite(high);
  const below = Number.isFinite(low);
  const end = (minus: number) => ({ plus: 2, minus, bend: CLAMP_VOLTS });
  return {
    name: `gain stage${above ? ' above' : ''}${below ? ' below' : ''}`,
    drops: [
      { plus: 0, minus: 1, bend: spent },
      ...(above ? [end(railPlus ? 3 : -1)] : []),
      ...(below ? [end(railMinus ? 4 : -1)] : []),
    ],
    constants: [spent, above ? high : 0, below ? low : 0],
    write(a, [difference, ...ends], [most, top, bottom]) {
      const t = a.tanh(a.div(difference, most));
      const gain = a.number(CLAMP_GAIN);
      let current = a.neg(a.mul(most, t));
      const conductance = [a.sub(a.mul(t, t), a.number(1))];
      if (above) {
        const over = softOverLaw(a, a.sub(ends[0], top));
        current = a.add(current, a.mul(gain, over.value));
        conductance.push(a.mul(gain, over.slope));
      }
      if (below) {
        const under = softOverLaw(a, a.sub(bottom, ends[ends.length - 1]));
        current = a.sub(current, a.mul(gain, under.value));
        conductance.push(a.mul(gain, under.slope));
      }
      return [{ from: 0, to: -1, current, conductance }];
    },
  };
}

/** Inputs: what drives the output resistance, and the output; row: the output current's. */
const outputLimitLaw = (amps: number, ohms: number): Law => ({
  name: 'output limit',
  drops: [{ plus: 0, minus: 1, bend: ohms * amps }],
  constants: [amps, 1 / (ohms * amps), 1 / ohms],
  write(a, [drop], [most, perVolt, siemens]) {
    const t = a.tanh(a.mul(drop, perVolt));
    const conductance = a.mul(siemens, a.sub(a.number(1), a.mul(t, t)));
    return [{ from: 0, to: -1, current: a.mul(most, t), conductance: [conductance] }];
  },
});

/** Input: the output current; rows: positive and negative rail. */
const railDrawLaw: Law = {
  name: 'rail draw',
  drops: [{ plus: 0, minus: -1, bend: RAIL_BEND_AMPS }],
  constants: [],
  write(a, [amps]) {
    const root = a.sqrt(a.add(a.mul(amps, amps), a.number(RAIL_BEND_AMPS ** 2)));
    const half = a.number(0.5);
    const share = a.mul(half, a.div(amps, root));
    return [
      {
        from: 0,
        to: -1,
        current: a.mul(half, a.add(amps, root)),
        conductance: [a.add(half, share)],
      },
      {
        from: 1,
        to: -1,
        current: a.mul(half, a.sub(amps, root)),
        conductance: [a.sub(half, share)],
      },
    ];
  },
};

/** Beyond so many times the softness the clamp is straight, or nothing. */
const FAR = 700;

/** Zero well below 0, x well above it, smooth between, and its slope. */
function softOverLaw<V>(a: Arithmetic<V>, x: V): { value: V; slope: V } {
  const [none, one] = [a.number(0), a.number(1)];
  const scaled = a.mul(x, a.number(1 / CLAMP_VOLTS));
  const size = a.min(a.abs(scaled), a.number(FAR));
  const e = a.exp(a.neg(size));
  const value = a.add(a.max(scaled, none), a.log(a.add(one, e)));
  return {
    value: a.mul(a.number(CLAMP_VOLTS), value),
    slope: a.div(a.ifAbove(scaled, none, one, e), a.add(one, e)),
  };
}
