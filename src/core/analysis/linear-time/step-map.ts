import { LuDecomposition, Matrix } from 'ml-matrix';
import { ReedError } from '@/core/errors';

/*
 * Radau IIA of order 5: stages and weights of the fully implicit Runge-Kutta method that ends in its
 * last stage (E. Hairer, G. Wanner, "Solving Ordinary Differential Equations II", 2nd ed., table
 * IV.5.6). It takes equations with algebraic parts as they are and forgets fast modes at once.
 */
const R6 = Math.sqrt(6);
const STAGES = [
  [(88 - 7 * R6) / 360, (296 - 169 * R6) / 1800, (-2 + 3 * R6) / 225],
  [(296 + 169 * R6) / 1800, (88 + 7 * R6) / 360, (-2 - 3 * R6) / 225],
  [(16 - R6) / 36, (16 + R6) / 36, 1 / 9],
];

/**
 * The matrix R that leads z(t) to z(t + h) for E dz/dt = A z, E singular where equations are
 * algebraic. R sees of z(t) only what E stores; for the smallest steps it is exact to rounding.
 *
 * @throws ReedError `singular` where the equations do not tell what follows
 */
export function stepMap(storage: Matrix, rates: Matrix, seconds: number): Matrix {
  const n = storage.rows;
  const stages = new Matrix(3 * n, 3 * n);
  const start = new Matrix(3 * n, n);
  for (let i = 0; i < n; i++) {
    // Each equation at a size of about one: farads per step and siemens, or plain numbers.
    let size = 0;
    for (let j = 0; j < n; j++)
      size = Math.max(size, Math.abs(storage.get(i, j)), seconds * Math.abs(rates.get(i, j)));
    const scale = size > 0 ? 1 / size : 1;
    for (let s = 0; s < 3; s++) {
      for (let j = 0; j < n; j++) {
        const stored = scale * storage.get(i, j);
        const moved = scale * seconds * rates.get(i, j);
        start.set(s * n + i, j, stored);
        for (let t = 0; t < 3; t++)
          stages.set(s * n + i, t * n + j, (s === t ? stored : 0) - STAGES[s][t] * moved);
      }
    }
  }
  const lu = new LuDecomposition(stages);
  if (lu.isSingular())
    throw new ReedError(
      'singular',
      'The circuit’s equations do not say how it moves: some net or loop is left to itself.',
    );
  return lu.solve(start).subMatrix(2 * n, 3 * n - 1, 0, n - 1);
}
