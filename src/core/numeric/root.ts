/**
 * A zero of `f` between `a` and `b`, where f(a) and f(b) differ in sign, by the ITP method
 * (I. F. D. Oliveira, R. H. C. Takahashi, "An Enhancement of the Bisection Method Average
 * Performance Preserving Minmax Optimality", ACM Trans. Math. Softw. 47, 2020), which never takes
 * more steps than bisection plus one.
 */
export function findZero(
  f: (x: number) => number,
  a: number,
  b: number,
  tolerance: number,
): number {
  let [ya, yb] = [f(a), f(b)];
  if (ya === 0) return a;
  if (yb === 0) return b;
  if (ya > 0 === yb > 0) throw new RangeError('The ends of the interval do not enclose a zero.');
  const rising = yb > 0 ? 1 : -1;
  const k1 = 0.2 / (b - a);
  const most = Math.ceil(Math.log2((b - a) / (2 * tolerance))) + 1;
  for (let j = 0; b - a > 2 * tolerance && j < 200; j++) {
    const half = (a + b) / 2;
    const radius = tolerance * 2 ** Math.max(0, most - j) - (b - a) / 2;
    const falsi = (yb * a - ya * b) / (yb - ya);
    const side = Math.sign(half - falsi);
    const delta = k1 * (b - a) ** 2;
    const truncated = delta <= Math.abs(half - falsi) ? falsi + side * delta : half;
    const x = Math.abs(truncated - half) <= radius ? truncated : half - side * radius;
    const y = f(x);
    if (y === 0) return x;
    if (y * rising > 0) [b, yb] = [x, y];
    else [a, ya] = [x, y];
  }
  return (a + b) / 2;
}

/**
 * The last place between two where something holds that holds up to a place and not beyond, by halving;
 * the end that it comes to where it holds everywhere or nowhere.
 */
export function lastWhere(holds: (x: number) => boolean, a: number, b: number): number {
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (a + b) / 2;
    if (holds(middle)) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

/** After so many the two ends are neighbours among numbers. */
const HALVINGS = 80;

/** The place of the greatest value of a single-peaked `f` between `a` and `b`, by golden section. */
export function findPeak(
  f: (x: number) => number,
  a: number,
  b: number,
  tolerance: number,
): number {
  const golden = (Math.sqrt(5) - 1) / 2;
  let [x1, x2] = [b - golden * (b - a), a + golden * (b - a)];
  let [y1, y2] = [f(x1), f(x2)];
  while (b - a > tolerance) {
    if (y1 < y2) {
      [a, x1, y1] = [x1, x2, y2];
      y2 = f((x2 = a + golden * (b - a)));
    } else {
      [b, x2, y2] = [x2, x1, y1];
      y1 = f((x1 = b - golden * (b - a)));
    }
  }
  return (a + b) / 2;
}
