import { ZERO, type Algebra, type Term } from './terms';

/** A complex number in straight-line code. */
export interface ComplexTerm {
  re: Term;
  im: Term;
}

export const NOTHING: ComplexTerm = { re: ZERO, im: ZERO };
export const isNothing = ({ re, im }: ComplexTerm): boolean =>
  re.kind === 'zero' && im.kind === 'zero';

export function product(algebra: Algebra, a: ComplexTerm, b: ComplexTerm): ComplexTerm {
  return {
    re: algebra.sum(ZERO, [
      { negative: false, a: a.re, b: b.re },
      { negative: true, a: a.im, b: b.im },
    ]),
    im: algebra.sum(ZERO, [
      { negative: false, a: a.re, b: b.im },
      { negative: false, a: a.im, b: b.re },
    ]),
  };
}

/**
 * a / p. Where only the board changes both, it is divided and not multiplied by a reciprocal: parts that
 * cancel one another, as a capacitor's four entries do, then cancel to the last digit.
 *
 * @param inverse 1 / p
 */
export function quotient(
  algebra: Algebra,
  a: ComplexTerm,
  p: ComplexTerm,
  inverse: ComplexTerm,
): ComplexTerm {
  const { re, im } = a;
  if (re.kind === 'local' || im.kind === 'local') return product(algebra, a, inverse);
  if (p.im.kind === 'zero' && p.re.kind !== 'local')
    return { re: algebra.steadyQuotient(re, p.re), im: algebra.steadyQuotient(im, p.re) };
  if (p.re.kind === 'zero' && p.im.kind !== 'local')
    return {
      re: algebra.steadyQuotient(im, p.im),
      im: algebra.negative(algebra.steadyQuotient(re, p.im)),
    };
  return product(algebra, a, inverse);
}

/** t - l u. */
export function minusProduct(
  algebra: Algebra,
  t: ComplexTerm,
  l: ComplexTerm,
  u: ComplexTerm,
): ComplexTerm {
  if (isNothing(l) || isNothing(u)) return t;
  return {
    re: algebra.sum(t.re, [
      { negative: true, a: l.re, b: u.re },
      { negative: false, a: l.im, b: u.im },
    ]),
    im: algebra.sum(t.im, [
      { negative: true, a: l.re, b: u.im },
      { negative: true, a: l.im, b: u.re },
    ]),
  };
}

/** 1 / p, and 1 / |p|^2. */
export function reciprocal(
  algebra: Algebra,
  p: ComplexTerm,
): { inverse: ComplexTerm; inverseSquare: Term } {
  if (p.im.kind === 'zero') {
    const re = algebra.reciprocal(p.re);
    return { inverse: { re, im: ZERO }, inverseSquare: algebra.product(re, re) };
  }
  if (p.re.kind === 'zero') {
    const size = algebra.reciprocal(p.im);
    return {
      inverse: { re: ZERO, im: algebra.negative(size) },
      inverseSquare: algebra.product(size, size),
    };
  }
  const square = algebra.sum(ZERO, [
    { negative: false, a: p.re, b: p.re },
    { negative: false, a: p.im, b: p.im },
  ]);
  const inverseSquare = algebra.reciprocal(square);
  return {
    inverse: {
      re: algebra.product(p.re, inverseSquare),
      im: algebra.sum(ZERO, [{ negative: true, a: p.im, b: inverseSquare }]),
    },
    inverseSquare,
  };
}
