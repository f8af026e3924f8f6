import { ReedError } from '@/core/errors';
import { add, fromRoots, multiply, polynomialRoots } from '../../response/polynomial';
import { polesOfSection } from '../../response/prototypes';
import { centreOfPoles } from '../figures';
import { polesOf } from '../poles-of-parts';
import { sketch } from '@/core/drawing/sketch';
import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageAsk,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because, meanOfPoles } from '../why';

/*
 * Three poles around one follower: an RC before a unity-gain positive-feedback stage, the RC loaded
 * by what follows. With equal resistors of 1 ohm (R. S. Aikens, W. J. Kerwin, "Single amplifier,
 * minimal RC, Butterworth, Thomson and Chebyshev filters to sixth order", 1972):
 *
 *   1/H = 1 + s (c1 + 3 c3) + 2 s^2 c3 (c1 + c2) + s^3 c1 c2 c3
 */

type Kind = 'low-pass' | 'high-pass';

/** 1/H of the low-pass with any parts. */
function denominator(r: readonly number[], c: readonly number[]): number[] {
  const bottom = [r[1] * c[2], c[1] * c[2] * r[1] * r[2]]; // (a-b)/vout over s
  const first = multiply([1, r[0] * c[0]], [1, c[2] * r[2] + bottom[0], bottom[1]]);
  return add(first, [0, (r[0] / r[1]) * bottom[0], (r[0] / r[1]) * bottom[1]]);
}

function figuresOf(kind: Kind, v: Values): StageFigures {
  const r = [v.R1, v.R2, v.R3];
  const c = [v.C1, v.C2, v.C3];
  const inverse = (x: number) => 1 / x;
  const poles =
    kind === 'low-pass'
      ? polesOf(denominator(r, c))
      : polesOf(denominator(c.map(inverse), r.map(inverse))).map((p) => ({
          ...p,
          f0Hz: 1 / (TWO_PI * TWO_PI * p.f0Hz),
        }));
  return { f0Hz: centreOfPoles(poles), gain: 1, poles };
}

/** The three capacitors at one ohm and one radian per second. */
function elements(kind: Kind, { f0Hz, poles }: StageAsk): number[] {
  const w = (hz: number) => (kind === 'low-pass' ? hz / f0Hz : f0Hz / hz);
  const e = fromRoots(
    poles!.flatMap(({ f0Hz: hz, q }) =>
      polesOfSection({ w0: w(hz), ...(q === undefined ? {} : { q }) }),
    ),
  );
  const [a1, a2, a3] = [e[1] / e[0], e[2] / e[0], e[3] / e[0]];
  // (a1 - 3x)(a2/2 - a1 x + 3 x^2) = a3 with x = c3
  const cubic = add(multiply([a1, -3], [a2 / 2, -a1, 3]), [-a3]);
  const fits = polynomialRoots(cubic)
    .filter((x) => Math.abs(x.im) < 1e-9 * Math.abs(x.re))
    .map(({ re: x }) => [a1 - 3 * x, a2 / (2 * x) - (a1 - 3 * x), x])
    .filter((c) => c.every((x) => x > 0))
    .sort((a, b) => Math.max(...a) / Math.min(...a) - Math.max(...b) / Math.min(...b));
  if (fits.length === 0)
    throw new ReedError(
      'design',
      'Third-order stage: with equal resistors these poles leave no positive capacitors. Ask for a lower Q, or build the pair and the single pole apart.',
    );
  return fits[0];
}

const PARTS = ['resistor R', 'capacitor C'];

function drawingOf(kind: Kind) {
  const [S, P] = kind === 'low-pass' ? PARTS : [...PARTS].reverse();
  return sketch(`in 0,6 / 0,6 1,6 / ${S}1 1,6 right / 5,6 7,6 / 6,6 6,7 / ${P}1 6,7 down left / ground 6,11
    ${S}2 7,6 right / 11,6 13,6 / 12,6 12,2 15,2 / ${P}2 15,2 right / 19,2 26,2 26,7
    ${S}3 13,6 right / 17,6 20,6 / 18,6 18,8 / ${P}3 18,8 down left / ground 18,12
    op-amp A1 20,6 plus / 20,8 20,11 25,11 25,7 / 24,7 28,7 / out 28,7`);
}

/** The third-order single-amplifier stage, either way round. */
export function thirdOrder(kind: Kind): Topology {
  const figures = (values: Values) => figuresOf(kind, values);
  const low = kind === 'low-pass';
  return {
    id: `third-order-${kind}`,
    family: 'third-order',
    name: `Third-order single-amplifier ${kind}`,
    short: `3rd ${kind}`,
    asWords: 'one third-order stage',
    kind,
    order: 3,
    opAmps: 1,
    gain: 'unity',
    limits: { gain: [1, 1], poles: 'all-pole' },
    drawing: drawingOf(kind),
    design(ask, choice) {
      checkAsk(this, ask);
      const c = elements(kind, ask);
      const w0 = TWO_PI * ask.f0Hz;
      const C = startCapacitor(ask.f0Hz, choice);
      const R = 1 / (w0 * C);
      const named = (letter: string, x: number[]) =>
        Object.fromEntries(x.map((value, k) => [`${letter}${k + 1}`, value]));
      return low
        ? {
            ...named('R', [R, R, R]),
            ...named(
              'C',
              c.map((x) => x * C),
            ),
          }
        : {
            ...named('C', [C, C, C]),
            ...named(
              'R',
              c.map((x) => R / x),
            ),
          };
    },
    figures,
    explain(values) {
      const f = figures(values);
      const equal = low ? 'R' : 'C';
      const R0 = low ? values.R1 : 1 / (TWO_PI * f.f0Hz * values.C1);
      const g = (k: number) => {
        const x = low ? values[`C${k}`] * TWO_PI * f.f0Hz * R0 : R0 / values[`R${k}`];
        return x.toPrecision(6);
      };
      return because(values, { ...f, own: { R0 } }, [
        {
          of: `${equal}1 ${equal}2 ${equal}3`,
          text: 'Three equal parts; the other three make the shape.',
        },
        ...[1, 2, 3].map((k) => ({
          of: low ? `C${k}` : `R${k}`,
          formula: low ? `\\frac{${g(k)}}{2\\pi @f0 @R0}` : `\\frac{@R0}{${g(k)}}`,
          text: 'From the cubic equation that the three poles put on three parts.',
        })),
        meanOfPoles(f, 'The geometric mean of the three poles.'),
      ]);
    },
    about:
      'The single pole of an odd order is put before the pair without a buffer between: one op-amp for three poles.',
    outputs: 'The op-amp’s output.',
    tuning: 'All three equal parts together move f0.',
    sensitivity: 'About half as much again as the same poles built apart.',
    avoid:
      'Parts are far apart in value and nothing can be trimmed alone; above Q of 2 build the pair apart.',
  };
}
