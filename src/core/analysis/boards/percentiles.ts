/**
 * The values below which some parts of a list lie, by partial sorting: each cut leaves the smaller
 * ones on its left, so that the next one is looked for on its right alone (C. A. R. Hoare,
 * "Algorithm 65: FIND", Communications of the ACM 4, 1961). Between two values it is the straight
 * line's.
 *
 * @param values reordered
 * @param parts rising, 0 to 1
 */
export function percentiles(values: Float64Array, parts: readonly number[]): number[] {
  let sorted = 0;
  return parts.map((part) => {
    const place = part * (values.length - 1);
    const below = Math.floor(place);
    select(values, below, Math.min(sorted, below));
    sorted = below;
    const share = place - below;
    if (share === 0) return values[below];
    let next = Infinity;
    for (let i = below + 1; i < values.length; i++) if (values[i] < next) next = values[i];
    return values[below] + share * (next - values[below]);
  });
}

/** Bring the k-th smallest value to its place; smaller ones to its left. */
function select(values: Float64Array, k: number, from: number): void {
  let [low, high] = [from, values.length - 1];
  while (low < high) {
    const pivot = middleOf(values[low], values[(low + high) >> 1], values[high]);
    let [i, j] = [low, high];
    while (i <= j) {
      while (values[i] < pivot) i++;
      while (values[j] > pivot) j--;
      if (i > j) break;
      const swapped = values[i];
      values[i] = values[j];
      values[j] = swapped;
      i++;
      j--;
    }
    if (k <= j) high = j;
    else if (k >= i) low = i;
    else return;
  }
}

const middleOf = (a: number, b: number, c: number): number =>
  a < b ? (b < c ? b : a < c ? c : a) : a < c ? a : b < c ? c : b;
