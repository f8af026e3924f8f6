import { ReedError } from '@/core/errors';
import { spaced, type Band, type Landmark } from '@/core/response/landmarks';
import { softened } from './trial';
import { levelsDb, type Response } from '@/core/response/response';
import { sampleResponse } from '@/core/response/sample';

/** A level that is to be had at each of some frequencies. */
export interface WantedLevels {
  frequenciesHz: Float64Array;
  levelDb: Float64Array;
  /** What a decibel counts there. */
  weights: Float64Array;
  /** The levels filled up from below by a power of `floor`, dB. */
  softDb: Float64Array;
  floor: number;
}

/** What lies further under the top of a response is not fitted to. */
export const JUDGED_DB = 40;
const FINE_POINTS = 320;
const COARSE_POINTS = 56;

/** A response as it is wanted: finely for judging, coarsely for searching. */
export interface Wanted {
  fine: WantedLevels;
  coarse: WantedLevels;
}

/** The levels of a response wherever they lie within 40 dB of its top. */
export function wantedLevels(
  response: Response,
  span: Band,
  landmarks: readonly Landmark[] = [],
): Wanted {
  const sampled = sampleResponse(response, { ...span, landmarks, maxPoints: FINE_POINTS });
  const even = spaced(span.fromHz, span.toHz, FINE_POINTS / 2);
  const hz = Float64Array.from([...sampled.frequenciesHz, ...even]).sort();
  const fine = nearTheTop(hz, levelsDb(response(hz)));
  return { fine, coarse: thinned(fine) };
}

/** The same of a curve that is given by points, between which it goes straight along log frequency. */
export function wantedCurve({ frequenciesHz, levelDb }: CurvePoints, span: Band): Wanted {
  const count = frequenciesHz.length;
  const fromHz = Math.max(span.fromHz, frequenciesHz[0]);
  const toHz = Math.min(span.toHz, frequenciesHz[count - 1]);
  if (!(toHz > fromHz * 1.01))
    throw new ReedError(
      'range',
      'The curve has no two points within the picture: nothing could be fitted to it.',
    );
  const hz = spaced(fromHz, toHz, FINE_POINTS / 2);
  let k = 1;
  const db = hz.map((x) => {
    while (k < count - 1 && frequenciesHz[k] < x) k++;
    const [a, b] = [frequenciesHz[k - 1], frequenciesHz[k]];
    const share = Math.min(1, Math.max(0, Math.log(x / a) / Math.log(b / a)));
    return levelDb[k - 1] + share * (levelDb[k] - levelDb[k - 1]);
  });
  const fine = nearTheTop(hz, db);
  return { fine, coarse: thinned(fine) };
}

/** Points of a curve, rising. */
export interface CurvePoints {
  frequenciesHz: ArrayLike<number>;
  levelDb: ArrayLike<number>;
}

function nearTheTop(hz: Float64Array, db: Float64Array): WantedLevels {
  const top = db.reduce((a, b) => Math.max(a, b), -Infinity);
  const keep = (x: Float64Array) => x.filter((_, k) => db[k] >= top - JUDGED_DB);
  const levelDb = keep(db);
  const floor = 10 ** ((top - FLOOR_DB) / 10);
  return {
    floor,
    softDb: levelDb.map((y) => softened(10 ** (y / 10), floor)),
    frequenciesHz: keep(hz),
    levelDb,
    weights: levelDb.map((y) =>
      Math.max(LEAST_WEIGHT, Math.min(1, (JUDGED_DB - (top - y)) / (JUDGED_DB - FULL_DB))),
    ),
  };
}

/** A decibel down to here counts in full, and further down less and less. */
const FULL_DB = 12;
/** The bottom of a null is filled up to so far under the top. */
const FLOOR_DB = 34;
const LEAST_WEIGHT = 0.35;

/**
 * So many of the points that every stretch between two of them turns as much: half by the way along
 * the axis, half by the way the level goes.
 */
function thinned(fine: WantedLevels): WantedLevels {
  const { frequenciesHz: hz, levelDb: db } = fine;
  const count = hz.length;
  if (count <= COARSE_POINTS) return fine;
  const along = new Float64Array(count);
  const octaves = Math.log2(hz[count - 1] / hz[0]);
  const way = db.reduce((sum, y, k) => sum + (k > 0 ? Math.abs(y - db[k - 1]) : 0), 0) || 1;
  for (let k = 1; k < count; k++)
    along[k] =
      along[k - 1] + Math.log2(hz[k] / hz[k - 1]) / octaves + Math.abs(db[k] - db[k - 1]) / way;
  const places: number[] = [];
  for (let i = 0, k = 0; i < COARSE_POINTS; i++) {
    const at = (along[count - 1] * i) / (COARSE_POINTS - 1);
    while (k + 1 < count && along[k] < at - 1e-12) k++;
    if (places[places.length - 1] !== k) places.push(k);
  }
  const at = (x: Float64Array) => Float64Array.from(places, (k) => x[k]);
  return {
    frequenciesHz: at(hz),
    levelDb: at(db),
    weights: at(fine.weights),
    softDb: at(fine.softDb),
    floor: fine.floor,
  };
}
