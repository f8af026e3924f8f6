import { add, multiply, polynomialRoots, type Polynomial } from '../response/polynomial';
import { size, type Complex } from '@/core/numeric/complex';
import { TWO_PI, type PoleFigure } from './topology';

/** Poles of 1 / D(s) as figures: pairs with their Q, single ones without. */
export function polesOf(denominator: Polynomial): PoleFigure[] {
  return sortedPoles(polynomialRoots(denominator));
}

/** Roots in the left half plane as figures, real ones first, then by rising Q. */
export function sortedPoles(roots: readonly Complex[]): PoleFigure[] {
  const real = roots.filter((p) => Math.abs(p.im) < 1e-7 * size(p));
  const pairs = roots.filter((p) => p.im >= 1e-7 * size(p));
  return [
    ...real.map((p) => ({ f0Hz: size(p) / TWO_PI })).sort((a, b) => a.f0Hz - b.f0Hz),
    ...pairs
      .map((p) => ({ f0Hz: size(p) / TWO_PI, q: size(p) / (-2 * p.re) }))
      .sort((a, b) => a.q - b.q),
  ];
}

/**
 * The denominator of a chain of loaded sections, by walking from the open output back to the input:
 * each section adds its shunt's current and its series part's voltage.
 *
 * @param series impedance of each series part, @param shunt admittance of each shunt part, both from
 *   input to output, as polynomials in s (both already multiplied by whatever makes them so)
 */
export function chainDenominator(
  series: readonly Polynomial[],
  shunt: readonly Polynomial[],
): number[] {
  let voltage: number[] = [1];
  let current: number[] = [0];
  for (let k = series.length - 1; k >= 0; k--) {
    current = add(current, multiply(shunt[k], voltage));
    voltage = add(voltage, multiply(series[k], current));
  }
  return voltage;
}
