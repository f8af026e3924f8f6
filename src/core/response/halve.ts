/** Values over rising frequencies: `columns[i][k]` is found at `frequenciesHz[k]`. */
export interface Sampled {
  frequenciesHz: Float64Array;
  columns: readonly Float64Array[];
}

/**
 * Put the middles of some gaps, on the log axis, among the points of a grid.
 *
 * @param gaps gap k lies between points k and k + 1; in any order, each once
 * @param at the columns at the frequencies it is given, all asked at once
 */
export function withMiddles(
  { frequenciesHz: x, columns }: Sampled,
  gaps: readonly number[],
  at: (frequenciesHz: Float64Array) => readonly Float64Array[],
): Sampled {
  const split = new Uint8Array(x.length);
  for (const k of gaps) split[k] = 1;
  const middles = new Float64Array(gaps.length);
  for (let k = 0, m = 0; k + 1 < x.length; k++)
    if (split[k] === 1) middles[m++] = Math.sqrt(x[k] * x[k + 1]);
  const found = at(middles);
  const woven = (old: Float64Array, fresh: Float64Array): Float64Array => {
    const all = new Float64Array(old.length + fresh.length);
    for (let k = 0, m = 0; k < old.length; k++) {
      all[k + m] = old[k];
      if (split[k] === 1) all[k + 1 + m] = fresh[m++];
    }
    return all;
  };
  return {
    frequenciesHz: woven(x, middles),
    columns: columns.map((column, i) => woven(column, found[i])),
  };
}
