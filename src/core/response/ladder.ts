import { ReedError } from '../errors';
import { squareRoot, type Complex } from '@/core/numeric/complex';
import { add, fromRoots, multiply, polynomialRoots, type Polynomial } from './polynomial';
import type { Ladder } from './ladder-network';
import { misfit, polished, reached } from './ladder-polish';
import { lowPassPrototype, polesOfSection, type PoleSection } from './prototypes';

/*
 * Lossless ladders that have given poles and zeros (S. Darlington, "Synthesis of Reactance
 * 4-Poles", J. Math. Phys. 18, 1939; L. Weinberg, "Network Analysis and Synthesis", 1962, ch. 13).
 * Everything here is normalised: source 1 ohm, frequencies in rad/s, henries and farads.
 */

/** p(x) with x = s^2 from the even or odd coefficients of p(s). */
const part = (p: Polynomial, odd: 0 | 1): number[] => p.filter((_, k) => k % 2 === odd);

const value = (p: Polynomial, x: number): number => p.reduceRight((v, c) => v * x + c, 0);

/** p / (x - root), the remainder dropped. */
function without(p: Polynomial, root: number): number[] {
  const quotient = new Array<number>(p.length - 1);
  let carry = 0;
  for (let k = p.length - 1; k > 0; k--) quotient[k - 1] = carry = p[k] + carry * root;
  return quotient;
}

/** Elements of the continued fraction a/b = e0 s + 1/(e1 s + 1/(...)) of an odd over an even part (or the reverse), in x = s^2. */
function continuedFraction(over: Polynomial, under: Polynomial, overIsOdd: boolean): number[] {
  let [a, b] = [[...over], [...under]];
  let odd = overIsOdd;
  const elements: number[] = [];
  while (b.length > 0 && a.length > 0) {
    const e = a[a.length - 1] / b[b.length - 1];
    elements.push(e);
    // a - e s b: where a is odd, s b lies at the same powers of x; where it is even, one higher.
    const rest = odd ? add(a, b, -e) : add(a, [0, ...b], -e);
    rest.length = a.length - 1;
    [a, b] = [b, rest];
    odd = !odd;
  }
  return elements;
}

/**
 * A ladder driven from a source without resistance into 1 ohm: H = 1 / (m + n) is met by
 * y22 = m / n, whose continued fraction gives the elements from the load backwards.
 */
export function singlyTerminated(sections: readonly PoleSection[]): Ladder {
  const e = monicAtZero(fromRoots(sections.flatMap(polesOfSection)));
  const [even, odd] = [part(e, 0), part(e, 1)];
  const elements =
    e.length % 2 === 1 ? continuedFraction(even, odd, false) : continuedFraction(odd, even, true);
  return checked({
    first: 'series',
    elements: elements.reverse(),
    traps: elements.map(() => 0),
    loadOhms: 1,
  });
}

const monicAtZero = (p: Polynomial): number[] => p.map((c) => c / p[0]);

/**
 * A ladder between a source of 1 ohm and a load, at the best level that the shape allows. Pairs of
 * zeros on the axis need an odd order, and come out as traps in the series arms.
 *
 * @throws ReedError `design` where no such ladder with positive parts exists
 */
export function doublyTerminated(
  sections: readonly PoleSection[],
  zeros: readonly number[] = [],
): Ladder {
  const start = darlington(sections, zeros);
  if (zeros.length > 0) return checked(polished(start, sections));
  if (start.elements.every((e) => e > 0)) {
    const found = polished(start, sections);
    if (misfit(found, sections) < 1e-9) return checked(found);
  }
  // Too many digits were lost: come from the flat ladder of this order instead, whose elements are
  // known well. A load unlike the source is kept.
  const flat = lowPassPrototype({ shape: 'butterworth', order: start.elements.length }).sections;
  const from = darlington(flat, []);
  for (const steps of [12, 60]) {
    const { ladder, residual } = reached(from, flat, sections, steps);
    if (residual < 1e-8) return checked(ladder);
  }
  throw new ReedError(
    'design',
    'The parts of this ladder cannot be told apart any more: take a lower order.',
  );
}

function darlington(sections: readonly PoleSection[], zeros: readonly number[]): Ladder {
  const e = fromRoots(sections.flatMap(polesOfSection));
  const order = e.length - 1;
  if (zeros.length > 0 && order % 2 === 0)
    throw new ReedError(
      'design',
      `An LC ladder of even order (${order}) cannot have every zero of this shape: ask for an odd order.`,
    );
  const f = reflection(e, zeros);
  const [a, b] = [add(e, f), add(e, f, -1)];
  b.length = order; // the leading terms cancel exactly
  const loadOhms = b[0] / a[0];
  if (zeros.length === 0) {
    const elements =
      order % 2 === 1
        ? continuedFraction(part(a, 1), part(b, 0), true)
        : continuedFraction(part(a, 0), part(b, 1), false);
    return { first: 'shunt', elements, traps: elements.map(() => 0), loadOhms };
  }
  // Of the sequences that keep every part positive, the one whose least part is greatest.
  const least = (l: Omit<Ladder, 'loadOhms'>) =>
    Math.min(...l.elements, ...l.traps.filter((t) => t !== 0));
  const [best] = orders([...zeros])
    .map((sequence) => withTraps(part(a, 1), part(b, 0), sequence))
    .sort((x, y) => least(y) - least(x));
  if (least(best) > 0) return { ...best, loadOhms };
  throw new ReedError(
    'design',
    'This shape has no ladder with positive parts: ask for less ripple or a lower stop band.',
  );
}

function checked(ladder: Ladder): Ladder {
  if (ladder.elements.every((x) => x > 0 && Number.isFinite(x))) return ladder;
  throw new ReedError(
    'design',
    'This shape has no ladder with positive parts: take a lower order.',
  );
}

/**
 * F(s) of the reflection F/E: F F* = E E* - k P P*, k bringing the top of the pass band to full
 * transfer. On the axis, with x = w^2, that difference touches zero at every crest: those double
 * zeros are found as crests, where they are simple zeros of the slope, and divided out.
 */
function reflection(e: Polynomial, zeros: readonly number[]): number[] {
  const down = onAxis(e);
  const up = zeros.reduce<number[]>(
    (p, z) => multiply(multiply(p, [1, -1 / z ** 2]), [1, -1 / z ** 2]),
    [1],
  );
  const slope = add(multiply(derivative(up), down), multiply(up, derivative(down)), -1);
  const scale = Math.max(...slope.map(Math.abs));
  const crests = polynomialRoots(slope.map((c) => (Math.abs(c) < 1e-13 * scale ? 0 : c)))
    .filter((r) => Math.abs(r.im) < 1e-6 * Math.abs(r.re) && r.re > 1e-9)
    .map((r) => r.re);
  const gain = (x: number) => value(up, x) / value(down, x);
  const top = Math.max(gain(0), ...crests.map(gain));
  const touching = crests.filter((x) => gain(x) > top * (1 - 1e-7));
  let rest = add(down, up, -1 / top);
  rest.length = down.length;
  for (const x of touching) rest = without(without(rest, x), x);
  const size = Math.max(...rest.map(Math.abs));
  let flat = 0;
  while (flat < rest.length - 1 && Math.abs(rest[flat]) < 1e-11 * size) flat++;
  const roots: Complex[] = [
    ...touching.flatMap((x) => [
      { re: 0, im: Math.sqrt(x) },
      { re: 0, im: -Math.sqrt(x) },
    ]),
    ...Array.from({ length: flat }, () => ({ re: 0, im: 0 })),
    ...polynomialRoots(rest.slice(flat)).map((x) => {
      const s = squareRoot({ re: -x.re, im: -x.im });
      return { re: -s.re, im: -s.im };
    }),
  ];
  return fromRoots(roots);
}

/** E(jw) E(-jw) as a polynomial in x = w^2. */
function onAxis(e: Polynomial): number[] {
  const mirrored = e.map((c, k) => (k % 2 === 0 ? c : -c));
  return part(multiply(e, mirrored), 0).map((c, k) => (k % 2 === 0 ? c : -c));
}

const derivative = (p: Polynomial): number[] =>
  p.length < 2 ? [0] : p.slice(1).map((c, k) => c * (k + 1));

/**
 * Ladder with traps by moving zeros (zero shifting): a shunt capacitor is taken off until the rest
 * has a zero at the wanted frequency, whose reciprocal's pole there is the trap.
 *
 * @param a, b the driving-point admittance is s a(x)/b(x), x = s^2
 */
function withTraps(
  a: Polynomial,
  b: Polynomial,
  zeros: readonly number[],
): Omit<Ladder, 'loadOhms'> {
  const elements: number[] = [];
  const traps: number[] = [];
  let [over, under] = [[...a], [...b]];
  for (const z of zeros) {
    const x = -z * z;
    const shunt = value(over, x) / value(under, x);
    const rest = without(add(over, under, -shunt), x); // s rest(x) (x + z^2) / under
    // The reciprocal under / (s (x + z^2) rest) has a pole at z, which is the trap's impedance
    // (s/C) / (x + z^2); what is left is divided by (x + z^2) once more.
    const trap = (x * value(rest, x)) / value(under, x);
    elements.push(shunt, 1 / (z * z * trap));
    traps.push(0, trap);
    under = without(add(under, [0, ...rest], -1 / trap), x);
    over = rest;
  }
  elements.push(over[0] / under[0]);
  traps.push(0);
  return { first: 'shunt', elements, traps };
}

/** Every order of a few numbers. */
function orders(list: number[]): number[][] {
  if (list.length < 2) return [list];
  return list.flatMap((x, i) =>
    orders([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [x, ...rest]),
  );
}
