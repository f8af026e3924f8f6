import * as z from 'zod';
import { defineDevice } from '../device';
import { net, partBase, positive } from '../part';
import { admittance, parameters } from '../stamper';

const point = z.strictObject({ amps: positive, ohms: positive });

/** How lamp and cell behave, without where they are joined. */
export const photocellModel = z.strictObject({
  lampOhms: positive.default(100),
  darkOhms: positive.default(1e7),
  /** Resistance against lamp current, straight lines on log axes between the points. */
  curve: z.array(point).min(2, 'needs at least two points of lamp current and resistance'),
  onSeconds: positive.default(0.005),
  offSeconds: positive.default(0.08),
});

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('photocell'),
  /** The light-dependent resistor. */
  a: net,
  b: net,
  /** The lamp beside it. */
  lampPlus: net,
  lampMinus: net,
  ...photocellModel.shape,
});

export type Photocell = z.infer<typeof schema>;

/**
 * A lamp and a light-dependent resistor in one case. The cell's conductance follows the lamp current
 * through a state of its own: quickly when the light rises, slowly when it falls.
 */
export const photocell = defineDevice<Photocell>({
  kind: 'photocell',
  schema,
  terminals: ({ a, b, lampPlus, lampMinus }) => ({ a, b, lampPlus, lampMinus }),
  conducts: ({ a, b, lampPlus, lampMinus }) => [
    [a, b],
    [lampPlus, lampMinus],
  ],
  stamp(part, s) {
    const lampPlus = s.net(part.lampPlus);
    const lampMinus = s.net(part.lampMinus);
    admittance(s, 'resistive', lampPlus, lampMinus, [s.parameter('lampOhms', part.lampOhms), -1]);
    const { darkOhms, onSeconds, offSeconds } = part;
    parameters(s, { darkOhms, onSeconds, offSeconds });
    const a = s.net(part.a);
    const b = s.net(part.b);
    // The state is the logarithm of the cell's conductance, so it can swing over decades.
    const state = s.unknown('cell state');
    const { curve, dark } = onLogAxes(part);
    // d(state)/dt = (target - state) / tau, with tau between the two times by the sign of the gap.
    s.reactive(state, state, 1);
    s.nonlinear({
      inputs: [lampPlus, lampMinus, state, a, b],
      rows: [state, a, b],
      noise: [],
      evaluate(x, out) {
        const lp = x[0];
        const lm = x[1];
        const z = x[2];
        const va = x[3];
        const vb = x[4];
        out.conductance.fill(0);
        const amps = (lp - lm) / part.lampOhms;
        const [target, slope] = lightTarget(curve, dark, amps);
        const gap = target - z;
        const { rate, rateSlope } = haste(part, gap);
        out.current[0] = -gap * rate;
        const byGap = -(rate + gap * rateSlope);
        out.conductance[0] = (byGap * slope) / part.lampOhms;
        out.conductance[1] = -out.conductance[0];
        out.conductance[2] = -byGap;
        const g = Math.exp(Math.min(z, MOST_STATE));
        const i = g * (va - vb);
        out.current[1] = i;
        out.current[2] = -i;
        for (const [row, way] of [
          [1, 1],
          [2, -1],
        ]) {
          out.conductance[5 * row + 2] = way * i;
          out.conductance[5 * row + 3] = way * g;
          out.conductance[5 * row + 4] = -way * g;
        }
      },
    });
  },
});

type Times = Pick<Photocell, 'onSeconds' | 'offSeconds'>;

/** How fast a cell goes to where its light calls it, and the slope of that by the gap: by the sign of what is left. */
function haste({ onSeconds, offSeconds }: Times, gap: number): { rate: number; rateSlope: number } {
  const turn = Math.tanh(gap * 4);
  return {
    rate: ((1 + turn) / onSeconds + (1 - turn) / offSeconds) / 2,
    rateSlope: (4 * (1 - turn * turn) * (1 / onSeconds - 1 / offSeconds)) / 2,
  };
}

/**
 * A cell’s resistance over time while a lamp current goes its way, from where it has settled: its law
 * of the state, by the classical method of Runge and Kutta.
 *
 * @param amps of the lamp, by seconds
 * @returns ohms at `count` times, evenly spaced, the first at zero
 */
export function ohmsOver(
  model: Pick<Photocell, 'curve' | 'darkOhms'> & Times,
  amps: (seconds: number) => number,
  { seconds, count }: { seconds: number; count: number },
): Float64Array {
  const { curve, dark } = onLogAxes(model);
  const rateAt = (t: number, state: number) => {
    const gap = lightTarget(curve, dark, amps(t))[0] - state;
    return gap * haste(model, gap).rate;
  };
  const every = seconds / (count - 1);
  const steps = Math.ceil((STEPS_A_TIME * every) / Math.min(model.onSeconds, model.offSeconds));
  const h = every / steps;
  let state = lightTarget(curve, dark, amps(0))[0];
  return Float64Array.from({ length: count }, (_, k) => {
    for (let n = 0; k > 0 && n < steps; n++) {
      const t = (k - 1) * every + n * h;
      const a = rateAt(t, state);
      const b = rateAt(t + h / 2, state + (h / 2) * a);
      const c = rateAt(t + h / 2, state + (h / 2) * b);
      const d = rateAt(t + h, state + h * c);
      state += (h / 6) * (a + 2 * b + 2 * c + d);
    }
    return Math.exp(-state);
  });
}

/** Steps to the shorter of a cell’s times. */
const STEPS_A_TIME = 40;

/** What a cell settles to in the light of a lamp current, ohms. */
export function settledOhms(model: Pick<Photocell, 'curve' | 'darkOhms'>, amps: number): number {
  const { curve, dark } = onLogAxes(model);
  return Math.exp(-lightTarget(curve, dark, amps)[0]);
}

/** Above this conductance (its logarithm) the cell's state no longer counts. */
export const MOST_STATE = 50;

/** Logarithms of lamp currents and conductances, by rising current, and of the dark conductance. */
export const onLogAxes = (part: Pick<Photocell, 'curve' | 'darkOhms'>) => ({
  curve: [...part.curve]
    .sort((p, q) => p.amps - q.amps)
    .map((p) => ({ x: Math.log(p.amps), y: -Math.log(p.ohms) })),
  dark: -Math.log(part.darkOhms),
});

/** Below the curve's first current the lamp's law is rounded off. */
export const leastAmps = (curve: readonly { x: number }[]): number => Math.exp(curve[0].x) * 1e-3;

/** Logarithm of the settled conductance for a lamp current, and its derivative by the current. */
function lightTarget(
  curve: readonly { x: number; y: number }[],
  dark: number,
  amps: number,
): [value: number, slope: number] {
  const least = leastAmps(curve);
  const size = Math.sqrt(amps * amps + least * least);
  const x = Math.log(size);
  let k = 0;
  while (k < curve.length - 2 && x > curve[k + 1].x) k++;
  const [p, q] = [curve[k], curve[k + 1]];
  const steep = (q.y - p.y) / (q.x - p.x);
  const y = p.y + steep * (x - p.x);
  // Darkness adds its own small conductance.
  const total = Math.log(Math.exp(y) + Math.exp(dark));
  return [total, (Math.exp(y - total) * steep * amps) / (size * size)];
}
