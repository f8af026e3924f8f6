/*
 * How good a choice of values is. The worst error alone would leave the shape of a response to
 * chance wherever a loss that no value mends is the worst of it; so the unevenness of the error
 * counts too.
 */

// Taken out of the global object, where looking them up costs more than they do.
const { abs, max, sqrt } = Math;

/** The greatest of the errors, either way. */
export function worstOf(errors: ArrayLike<number>): number {
  let worst = 0;
  for (let k = 0; k < errors.length; k++) worst = max(worst, abs(errors[k]));
  return worst;
}

/** The greatest error, and how uneven the errors are, dB. */
export const costOf = (errors: Float64Array): number =>
  errors.length === 0 ? 0 : costOfSum(errors, new Float64Array(errors.length));

const NONE = new Float64Array(0);

/** `costOf` of errors with one or two changes added, which is asked thousands of times. */
export function costOfSum(errors: Float64Array, a: Float64Array, b = NONE): number {
  const count = errors.length;
  const two = b.length > 0;
  let [worst, sum, squares] = [0, 0, 0];
  for (let k = 0; k < count; k++) {
    const error = errors[k] + a[k] + (two ? b[k] : 0);
    const size = error < 0 ? -error : error;
    if (size > worst) worst = size;
    sum += error;
    squares += error * error;
  }
  const mean = sum / count;
  return worst + sqrt(max(0, squares / count - mean * mean));
}
