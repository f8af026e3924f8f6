import { leastAmps, MOST_STATE, onLogAxes, type Photocell } from '../devices/photocell';
import type { Law } from './law';

/** How far the state moves before its rate changes noticeably. */
const STATE_BEND = 0.1;

/** The drops are lamp, state and cell; the flows the state's and the cell's. */
export function photocellLaws(part: Photocell): Law[] {
  const { curve, dark } = onLogAxes(part);
  const least = leastAmps(curve);
  const lines = curve.slice(1).map((q, k) => [curve[k].x, curve[k].y, steepness(curve[k], q)]);
  return [
    {
      name: `photocell of ${lines.length}`,
      drops: [
        { plus: 0, minus: 1, bend: least * part.lampOhms },
        { plus: 2, minus: -1, bend: STATE_BEND },
        { plus: 3, minus: 4, bend: 1 },
      ],
      constants: [
        1 / part.lampOhms,
        least * least,
        Math.exp(dark),
        (1 / part.onSeconds + 1 / part.offSeconds) / 2,
        (1 / part.onSeconds - 1 / part.offSeconds) / 2,
        ...lines.flat(),
      ],
      write(a, [lamp, state, cell], [perOhm, leastSquare, darkness, rest, swing, ...points]) {
        const one = a.number(1);
        const amps = a.mul(lamp, perOhm);
        const square = a.add(a.mul(amps, amps), leastSquare);
        const x = a.mul(a.number(0.5), a.log(square));
        let [px, py, steep] = points;
        for (let k = 3; k < points.length; k += 3) {
          const corner = points[k];
          const choose = (next: typeof lamp, before: typeof lamp) =>
            a.ifAbove(x, corner, next, before);
          [px, py, steep] = [
            choose(points[k], px),
            choose(points[k + 1], py),
            choose(points[k + 2], steep),
          ];
        }
        const lit = a.exp(a.add(py, a.mul(steep, a.sub(x, px))));
        const total = a.add(lit, darkness);
        const slope = a.mul(a.div(lit, total), a.div(a.mul(steep, amps), square));
        const gap = a.sub(a.log(total), state);
        const turn = a.tanh(a.mul(gap, a.number(4)));
        const rate = a.add(rest, a.mul(swing, turn));
        const bent = a.mul(a.mul(a.number(4), swing), a.sub(one, a.mul(turn, turn)));
        const byGap = a.neg(a.add(rate, a.mul(gap, bent)));
        const conductance = a.exp(a.min(state, a.number(MOST_STATE)));
        const current = a.mul(conductance, cell);
        return [
          {
            from: 0,
            to: -1,
            current: a.neg(a.mul(gap, rate)),
            conductance: [a.mul(byGap, a.mul(slope, perOhm)), a.neg(byGap)],
          },
          { from: 1, to: 2, current, conductance: [undefined, current, conductance] },
        ];
      },
    },
  ];
}

const steepness = (p: { x: number; y: number }, q: { x: number; y: number }): number =>
  (q.y - p.y) / (q.x - p.x);
