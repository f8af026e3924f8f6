import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { StockEntry } from '@/core/library/stock';
import type { MeasuredCurve } from '@/core/library/take-table';
import { ResponseReader, quantityOfMeasure, valueOrNaN } from '@/core/response/readings';
import { levelDb, phaseDegrees, responseOf, type Response } from '@/core/response/response';
import { contextOf } from '@/core/sheet/layers';
import type { Sheet } from '@/core/sheet/schema';
import { placeIn } from '@/core/speaker/curve';
import { plainlyOf } from '@/core/suspects/estimate-noise';
import type { Noise } from '@/core/suspects/noise';
import { normalDeviate, seededRandom } from '@/core/random';
import { boardCircuit, type SheetBoard, type TakenHow } from './board-circuit';

/**
 * What the readings of a sheet are on a take: read between its points as the same readings are read
 * off a circuit.
 *
 * @param gainDb by how much the take stands too high
 * @param predicted what it was predicted to be
 * @returns by reading; null where the take does not reach, or has no phase
 */
export function readTake(
  sheet: Sheet,
  take: MeasuredCurve,
  gainDb: number,
  predicted: Response,
): (number | null)[] {
  const { frequenciesHz, phaseDegrees: degrees } = take;
  const span = { fromHz: frequenciesHz[0], toHz: frequenciesHz[frequenciesHz.length - 1] };
  const context = contextOf(sheet);
  const reader = new ResponseReader(responseOfTake(take, gainDb, predicted), {
    span,
    ...(context ? { context } : {}),
  });
  return sheet.readings.map(({ measure, at }) => {
    // A take is of the output, and of no stage before it.
    if (at || (quantityOfMeasure(measure) === 'degrees' && !degrees)) return null;
    const hz = 'atHz' in measure ? measure.atHz : undefined;
    if (hz !== undefined && (hz < span.fromHz || hz > span.toHz)) return null;
    const value = valueOrNaN(reader, measure);
    return Number.isFinite(value) ? value : null;
  });
}

/**
 * A take between its points: the prediction, and what the take has more by straight lines over the
 * logarithm of frequency, held beyond the first and the last. The difference bends far less than either.
 */
function responseOfTake(
  { frequenciesHz, levelDb: levels, phaseDegrees: degrees }: MeasuredCurve,
  gainDb: number,
  predicted: Response,
): Response {
  const logs = Float64Array.from(frequenciesHz, Math.log);
  const last = logs.length - 1;
  const { re, im } = predicted(Float64Array.from(frequenciesHz));
  const louder = levels.map((db, k) => db - gainDb - levelDb(re[k], im[k]));
  const ahead = degrees?.map((d, k) => {
    const off = d - phaseDegrees(re[k], im[k]);
    return off - 360 * Math.round(off / 360);
  });
  return (hz) => {
    const trace = predicted(hz);
    hz.forEach((f, k) => {
      const u = Math.min(logs[last], Math.max(logs[0], Math.log(f)));
      const i = last === 0 ? 0 : placeIn(logs, u);
      const t = last === 0 ? 0 : (u - logs[i]) / (logs[i + 1] - logs[i]);
      const between = (values: readonly number[]) =>
        last === 0 ? values[0] : values[i] + (values[i + 1] - values[i]) * t;
      const size = 10 ** (between(louder) / 20);
      const angle = ahead ? (between(ahead) * Math.PI) / 180 : 0;
      const [c, s] = [size * Math.cos(angle), size * Math.sin(angle)];
      const real = trace.re[k] * c - trace.im[k] * s;
      trace.im[k] = trace.re[k] * s + trace.im[k] * c;
      trace.re[k] = real;
    });
    return trace;
  };
}

/** A board and its latest take. */
export interface MeasuredBoard {
  board: SheetBoard;
  take: MeasuredCurve & TakenHow;
}

/** A take is read so often with its noise once more on it. */
const TURNS = 16;

/**
 * How far the readings of a take are off by its noise: by what happens to them when as much noise is
 * put on it once more, what that shifts (a highest point only ever rises) counted in.
 *
 * @param values what is read of the take as it is
 * @returns by reading, the root of the mean square; null where there is no reading
 */
function noiseOfReadings(
  sheet: Sheet,
  take: MeasuredCurve,
  { gainDb, noise }: { gainDb: number; noise: Noise },
  predicted: Response,
  values: readonly (number | null)[],
): (number | null)[] {
  const random = seededRandom(1);
  const squares = values.map(() => 0);
  for (let turn = 0; turn < TURNS; turn++) {
    const noisy = (list: readonly number[], by: Float64Array | undefined) =>
      list.map((v, k) => v + (by ? by[k] * normalDeviate(random) : 0));
    const { levelDb: levels, phaseDegrees: degrees } = take;
    const again = readTake(
      sheet,
      {
        ...take,
        levelDb: noisy(levels, noise.levelDb),
        ...(degrees ? { phaseDegrees: noisy(degrees, noise.phaseDegrees) } : {}),
      },
      gainDb,
      predicted,
    );
    again.forEach((v, r) => (squares[r] += v === null ? Infinity : (v - (values[r] ?? 0)) ** 2));
  }
  return values.map((v, r) =>
    v === null || !Number.isFinite(squares[r]) ? null : Math.sqrt(squares[r] / TURNS),
  );
}

/** The readings of one board. */
export interface BoardRead {
  board: string;
  gainDb: number;
  /** By reading; null where its take does not reach. */
  values: (number | null)[];
  /** By reading: how far it is off by noise alone. */
  noise: (number | null)[];
}

/** The readings of many boards, each with its own unknown level taken out. */
export function readBoards(
  sheet: Sheet,
  boards: readonly MeasuredBoard[],
  drawer: readonly StockEntry[] = [],
): BoardRead[] {
  return boards.map(({ board, take }) => {
    const own = boardCircuit(sheet, board, drawer, take);
    const { circuit, probe } = own;
    const plain = plainlyOf({ ...own, take });
    const predicted = responseOf(new AcAnalysis(circuit), probe);
    const values = readTake(sheet, take, plain.gainDb, predicted);
    const noise = noiseOfReadings(sheet, take, plain, predicted, values);
    return { board: board.id, gainDb: plain.gainDb, values, noise };
  });
}
