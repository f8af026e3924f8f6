/**
 * Slopes of a natural cubic spline through points
 * (C. de Boor, "A Practical Guide to Splines", 1978, chapter IV).
 *
 * @param x rising, two points or more
 */
export function splineSlopes(x: ArrayLike<number>, y: ArrayLike<number>): Float64Array {
  const n = x.length;
  const slopes = new Float64Array(n);
  const diagonal = new Float64Array(n);
  const right = new Float64Array(n);
  const step = (i: number) => x[i + 1] - x[i];
  const rise = (i: number) => (y[i + 1] - y[i]) / step(i);
  // Tridiagonal equations for the slopes; at the ends the curvature vanishes.
  diagonal[0] = 2;
  right[0] = 3 * rise(0);
  let above = 1;
  for (let i = 1; i < n; i++) {
    const last = i === n - 1;
    const below = last ? 1 : step(i);
    const middle = last ? 2 : 2 * (step(i - 1) + step(i));
    const side = last ? 3 * rise(i - 1) : 3 * (step(i) * rise(i - 1) + step(i - 1) * rise(i));
    const factor = below / diagonal[i - 1];
    diagonal[i] = middle - factor * above;
    right[i] = side - factor * right[i - 1];
    slopes[i - 1] = above;
    above = last ? 0 : step(i - 1);
  }
  // What stands above the diagonal was kept in `slopes` on the way down.
  let next = right[n - 1] / diagonal[n - 1];
  for (let i = n - 2; i >= 0; i--) {
    const own = (right[i] - slopes[i] * next) / diagonal[i];
    slopes[i + 1] = next;
    next = own;
  }
  slopes[0] = next;
  return slopes;
}

/** The value of the cubic between points `i` and `i + 1`, a part `t` of the way. */
export function splineAt(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  slopes: ArrayLike<number>,
  i: number,
  t: number,
): number {
  const h = x[i + 1] - x[i];
  const [t2, t3] = [t * t, t * t * t];
  return (
    (2 * t3 - 3 * t2 + 1) * y[i] +
    (t3 - 2 * t2 + t) * h * slopes[i] +
    (3 * t2 - 2 * t3) * y[i + 1] +
    (t3 - t2) * h * slopes[i + 1]
  );
}
