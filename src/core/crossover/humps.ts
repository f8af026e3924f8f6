/** A hump of a level: where its middle is, how high it stands, and how wide it is half way up. */
export interface Hump {
  hz: number;
  db: number;
  octaves: number;
}

/** The line that humps stand on: the mean of so much to either side, octaves. */
const BASE_OCTAVES = 1.5;
/** What stands up by less is none, dB. */
const LEAST_DB = 0.7;
const MOST = 6;

/**
 * The humps of a level over a band, the highest first. Each is measured against the straight line
 * between the lowest points beside it, so that a slope is none.
 */
export function humpsOf(
  frequenciesHz: Float64Array,
  levelDb: Float64Array,
  { fromHz, toHz }: { fromHz: number; toHz: number },
): Hump[] {
  const logs = frequenciesHz.map((hz) => Math.log2(hz));
  const inside = [...frequenciesHz.keys()].filter(
    (k) => frequenciesHz[k] >= fromHz && frequenciesHz[k] <= toHz,
  );
  const found: Hump[] = [];
  for (const k of inside.slice(1, -1)) {
    if (levelDb[k] < levelDb[k - 1] || levelDb[k] <= levelDb[k + 1]) continue;
    const low = footOf(logs, levelDb, k, -1);
    const high = footOf(logs, levelDb, k, 1);
    const above = (i: number) =>
      levelDb[i] -
      (levelDb[low] +
        ((levelDb[high] - levelDb[low]) * (logs[i] - logs[low])) / (logs[high] - logs[low]));
    const db = above(k);
    if (!(db >= LEAST_DB)) continue;
    const edge = (step: 1 | -1) => {
      let i = k;
      while (i !== (step < 0 ? low : high) && above(i) > db / 2) i += step;
      return logs[i];
    };
    found.push({ hz: frequenciesHz[k], db, octaves: Math.max(0.1, edge(1) - edge(-1)) });
  }
  return found.sort((a, b) => b.db - a.db).slice(0, MOST);
}

/** The lowest point to one side of a top, as far as its base reaches; a level that rises again ends it. */
function footOf(logs: Float64Array, levelDb: Float64Array, top: number, step: 1 | -1): number {
  let lowest = top;
  for (
    let i = top + step;
    i >= 0 && i < logs.length && Math.abs(logs[i] - logs[top]) <= BASE_OCTAVES;
    i += step
  ) {
    if (levelDb[i] > levelDb[top]) break;
    if (levelDb[i] < levelDb[lowest]) lowest = i;
  }
  return lowest;
}
