import fc from 'fast-check';
import { CholeskyDecomposition, determinant, inverse, Matrix } from 'ml-matrix';
import { Cholesky } from './cholesky';

const sizes = fc.integer({ min: 1, max: 8 });
const positiveDefinite = sizes.chain((n) =>
  fc
    .array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: n * n, maxLength: n * n })
    .map((list) => {
      const a = Matrix.from1DArray(n, n, list);
      return a.mmul(a.transpose()).add(Matrix.eye(n));
    }),
);

test('solves, inverts and takes the determinant as the library does', () => {
  fc.assert(
    fc.property(positiveDefinite, (a) => {
      const n = a.rows;
      const factors = Cholesky.of(Float64Array.from(a.to1DArray()), n)!;
      const b = Float64Array.from({ length: n }, (_, i) => Math.sin(i + 1));
      const expected = new CholeskyDecomposition(a).solve(Matrix.columnVector(b)).to1DArray();
      factors.solve(b.slice()).forEach((v, i) => expect(v).toBeCloseTo(expected[i], 8));
      expect(factors.logDet).toBeCloseTo(Math.log(determinant(a)), 8);
      const inverted = inverse(a).to1DArray();
      factors.inverse().forEach((v, i) => expect(v).toBeCloseTo(inverted[i], 8));
    }),
  );
});

test('a matrix that is not positive definite has no factors', () => {
  expect(Cholesky.of(Float64Array.of(1, 2, 2, 1), 2)).toBeUndefined();
  expect(Cholesky.of(Float64Array.of(Number.NaN), 1)).toBeUndefined();
});
