/** Steps of each size that follow a jump before they are doubled. */
const EACH = 8;

/**
 * Step sizes for a stretch of time that begins with a jump, as powers of two of the smallest step:
 * tiny ones first, doubled until they are `2 ** level`, then as many of those as fit, then what is
 * left.
 *
 * @param units length of the stretch in smallest steps, a whole number
 */
export function* stepsAfterJump(units: number, level: number): Generator<number> {
  let left = units;
  for (let k = 0; k < level; k++)
    for (let i = 0; i < EACH && left >= 2 ** k; i++) {
      yield k;
      left -= 2 ** k;
    }
  for (let k = level; k >= 0; k--)
    while (left >= 2 ** k) {
      yield k;
      left -= 2 ** k;
    }
}
