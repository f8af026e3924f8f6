import { Matrix, SVD } from 'ml-matrix';
import { polesOfSection, type PoleSection } from './prototypes';
import { add, fromRoots, multiply, type Polynomial } from './polynomial';
import type { Ladder } from './ladder-network';

/*
 * Continued fractions lose digits as the order grows. A ladder that is nearly right is brought to
 * the last digit by Newton's method on its elements (as logarithms), its denominator being compared
 * with the wanted one coefficient by coefficient.
 */

/** E(s) of a ladder between 1 ohm and its load, walked from the load to the source; E(0) = 1. */
export function denominatorOf({ elements, traps, loadOhms, first }: Ladder): number[] {
  let voltage: Polynomial = [1];
  let current: Polynomial = [1 / loadOhms];
  for (let k = elements.length - 1; k >= 0; k--) {
    const shunt = (first === 'shunt') === (k % 2 === 0);
    if (shunt) current = add(current, multiply([0, elements[k]], voltage));
    else if (traps[k] > 0) {
      const pole = [1, 0, elements[k] * traps[k]];
      voltage = add(multiply(pole, voltage), multiply([0, elements[k]], current));
      current = multiply(pole, current);
    } else voltage = add(voltage, multiply([0, elements[k]], current));
  }
  const e = first === 'shunt' ? add(voltage, current) : [...voltage];
  return e.map((c) => c / e[0]);
}

/** Greatest relative difference between two denominators. */
const residual = (e: Polynomial, want: Polynomial): number =>
  want.reduce((worst, c, k) => Math.max(worst, Math.abs(e[k] / c - 1)), 0);

const GOOD = 1e-12;

/** The ladder brought to the given poles, its traps kept at their zeros. */
export function polished(start: Ladder, sections: readonly PoleSection[]): Ladder {
  const want = wantedOf(sections);
  return newton(start, want).ladder;
}

/** The same from a ladder of other poles, in steps along the way from its denominator to the wanted one. */
export function reached(
  start: Ladder,
  from: readonly PoleSection[],
  to: readonly PoleSection[],
  steps = 12,
): { ladder: Ladder; residual: number } {
  const [a, b] = [wantedOf(from), wantedOf(to)];
  let state = { ladder: start, residual: 0 };
  for (let i = 1; i <= steps; i++) {
    const t = i / steps;
    state = newton(
      state.ladder,
      a.map((c, k) => c ** (1 - t) * b[k] ** t),
    );
  }
  return state;
}

function wantedOf(sections: readonly PoleSection[]): number[] {
  const e = fromRoots(sections.flatMap(polesOfSection));
  return e.map((c) => c / e[0]);
}

export const misfit = (ladder: Ladder, sections: readonly PoleSection[]): number =>
  residual(denominatorOf(ladder), wantedOf(sections));

function newton(start: Ladder, want: Polynomial): { ladder: Ladder; residual: number } {
  let ladder = start;
  let error = residual(denominatorOf(ladder), want);
  for (let pass = 0; pass < 30 && error > GOOD; pass++) {
    const step = newtonStep(ladder, want);
    let length = 1;
    let next = moved(ladder, step, length);
    while (!(residual(denominatorOf(next), want) < error) && length > 1e-3)
      next = moved(ladder, step, (length /= 2));
    const nextError = residual(denominatorOf(next), want);
    if (!(nextError < error)) break;
    [ladder, error] = [next, nextError];
  }
  return { ladder, residual: error };
}

/** Elements multiplied by exp(step); a trap's capacitor follows its coil, keeping the zero. */
function moved(ladder: Ladder, step: readonly number[], length: number): Ladder {
  const factors = step.map((x) => Math.exp(Math.max(-1, Math.min(1, x * length))));
  return {
    ...ladder,
    elements: ladder.elements.map((x, k) => x * factors[k]),
    traps: ladder.traps.map((x, k) => x / factors[k]),
  };
}

/** Where the level answers the elements only in second order the system is nearly singular: least norm. */
function newtonStep(ladder: Ladder, want: Polynomial): number[] {
  const here = denominatorOf(ladder);
  const n = ladder.elements.length;
  const h = 1e-6;
  const columns = ladder.elements.map((_, j) => {
    const one = ladder.elements.map((__, k) => (k === j ? h : 0));
    const [up, down] = [
      denominatorOf(moved(ladder, one, 1)),
      denominatorOf(moved(ladder, one, -1)),
    ];
    return up.map((c, k) => Math.log(c / down[k]) / (2 * h));
  });
  const jacobian = Matrix.zeros(n, n);
  for (let k = 0; k < n; k++) for (let j = 0; j < n; j++) jacobian.set(k, j, columns[j][k + 1]);
  const right = Matrix.columnVector(
    Array.from({ length: n }, (_, k) => Math.log(want[k + 1] / here[k + 1])),
  );
  return new SVD(jacobian, { autoTranspose: true }).solve(right).to1DArray();
}
