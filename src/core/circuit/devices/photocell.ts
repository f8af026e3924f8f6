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
        const turn = Math.tanh(gap * 4);
        const rate = ((1 + turn) / part.onSeconds + (1 - turn) / part.offSeconds) / 2;
        const rateSlope = (4 * (1 - turn * turn) * (1 / part.onSeconds - 1 / part.offSeconds)) / 2;
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
