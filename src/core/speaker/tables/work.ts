import { placeIn } from '../curve';
import type { LevelTable } from '../measured';

/** A level as it is used: rows, worked on as its table says. */
export interface WorkedLevel {
  frequenciesHz: number[];
  levelDb: number[];
  phaseDegrees?: number[];
}

/**
 * The level of a table with what is to be done to it done: joined to another one below a frequency,
 * smoothed, shifted. The rows themselves stay as they were measured.
 */
export function workedLevel(table: LevelTable): WorkedLevel {
  const joined = table.below ? spliced(table, table.below) : table;
  const { frequenciesHz, phaseDegrees } = joined;
  const levels = table.smoothPerOctave
    ? smoothed(frequenciesHz, joined.levelDb, table.smoothPerOctave)
    : joined.levelDb;
  const { shiftDb } = table;
  return {
    frequenciesHz,
    levelDb: shiftDb === 0 ? levels : levels.map((db) => db + shiftDb),
    ...(phaseDegrees ? { phaseDegrees } : {}),
  };
}

/**
 * A level smoothed to one nth of an octave: at each row the mean of the power over that width, rows
 * weighted by the part of the axis that they stand for.
 */
export function smoothed(
  frequenciesHz: readonly number[],
  levelDb: readonly number[],
  perOctave: number,
): number[] {
  const logs = frequenciesHz.map((hz) => Math.log2(hz));
  const last = logs.length - 1;
  const half = 1 / (2 * perOctave);
  const share = logs.map((_, i) => (logs[Math.min(last, i + 1)] - logs[Math.max(0, i - 1)]) / 2);
  const power = levelDb.map((db) => 10 ** (db / 10));
  let from = 0;
  return logs.map((u, i) => {
    while (logs[from] < u - half) from++;
    let [sum, weight] = [0, 0];
    for (let k = from; k <= last && logs[k] <= u + half; k++) {
      sum += power[k] * share[k];
      weight += share[k];
    }
    return weight > 0 ? 10 * Math.log10(sum / weight) : levelDb[i];
  });
}

/** A level above a frequency, and another one below it: as near and far measurements are joined. */
function spliced(
  above: LevelTable,
  { frequenciesHz: hz, levelDb, phaseDegrees, joinHz, shiftDb }: NonNullable<LevelTable['below']>,
): WorkedLevel {
  const low = [...hz.keys()].filter((i) => hz[i] < joinHz);
  const high = [...above.frequenciesHz.keys()].filter((i) => above.frequenciesHz[i] >= joinHz);
  const phased = phaseDegrees && above.phaseDegrees;
  return {
    frequenciesHz: [...low.map((i) => hz[i]), ...high.map((i) => above.frequenciesHz[i])],
    levelDb: [...low.map((i) => levelDb[i] + shiftDb), ...high.map((i) => above.levelDb[i])],
    ...(phased
      ? {
          phaseDegrees: [
            ...low.map((i) => phaseDegrees[i]),
            ...high.map((i) => above.phaseDegrees![i]),
          ],
        }
      : {}),
  };
}

/** By how much a lower table must be shifted to meet an upper one where they are joined. */
export function meetingShift(
  above: Pick<LevelTable, 'frequenciesHz' | 'levelDb'>,
  below: Pick<LevelTable, 'frequenciesHz' | 'levelDb'>,
  joinHz: number,
): number {
  return levelAt(above, joinHz) - levelAt(below, joinHz);
}

/** A level between its rows, straight on a log axis; beyond its ends that of its last row. */
function levelAt(
  { frequenciesHz, levelDb }: Pick<LevelTable, 'frequenciesHz' | 'levelDb'>,
  hz: number,
): number {
  const logs = Float64Array.from(frequenciesHz, Math.log);
  const u = Math.min(logs[logs.length - 1], Math.max(logs[0], Math.log(hz)));
  const i = placeIn(logs, u);
  const t = (u - logs[i]) / (logs[i + 1] - logs[i]);
  return levelDb[i] + t * (levelDb[i + 1] - levelDb[i]);
}
