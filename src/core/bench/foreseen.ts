import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { StockEntry } from '@/core/library/stock';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Pause } from '@/core/lenses/layers';
import { ReedError } from '@/core/errors';
import { spaced } from '@/core/response/landmarks';
import { levelsAt } from '@/core/response/levels-at';
import { readMeasure, ResponseReader } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { readerOptions } from '@/core/sheet/reader-options';
import type { Sheet } from '@/core/sheet/schema';
import { spreadOfSheet } from '@/core/sheet/spread-sheet';
import type { ReadingSpread, SpreadResult } from '@/core/spread/spread';

/** One frequency of a test plan. */
export interface Spot {
  hz: number;
  /** What boards of such parts measure there, dB of what goes in; nothing where none does. */
  level: ReadingSpread | null;
}

/** What boards of a sheet should measure like. */
export interface Foreseen {
  /** Of the sheet’s readings, in their order. */
  spread: SpreadResult;
  /** Where to measure by hand, rising. */
  spots: Spot[];
  /** With every part as it should be, over the picture. */
  exact: { hz: Float64Array; db: Float64Array };
}

/** As many boards as the sheet itself counts, and the same ones. */
const BOARDS = 1000;
const SEED = 1;
/** Boards between two pauses. */
const SLICE = 40;
/** A plan has so many frequencies: fewer tell no part from another, and nobody measures more by hand. */
const LEAST_SPOTS = 8;
const MOST_SPOTS = 14;
/** Frequencies closer than this, as a factor, are one. */
const SAME = 1.1;
/** How far outwards of an edge its slope is measured. */
const OUTWARDS = 2;
const PICTURE_POINTS = 301;
/** Frequencies are set on a dial. */
const DIGITS = 2;

/**
 * What boards of a sheet should measure like: its readings, and the level at each frequency of
 * the plan.
 *
 * @throws ReedError as solving the sheet’s first way
 */
export async function foresee(
  sheet: Sheet,
  drawer: readonly StockEntry[],
  pause: Pause,
): Promise<Foreseen> {
  const hz = spotFrequencies(sheet);
  const own = sheet.readings.length;
  const planned: Sheet = {
    ...sheet,
    readings: [
      ...sheet.readings,
      ...hz.map((atHz, k) => ({ id: `spot-${k}`, measure: { measure: 'level' as const, atHz } })),
    ],
  };
  const run = spreadOfSheet(planned, { boards: BOARDS, seed: SEED, drawer });
  while (run.drawn < BOARDS) {
    run.draw(SLICE);
    await pause();
  }
  const { readings, ...rest } = run.result(false);
  const picture = spaced(sheet.view.fromHz, sheet.view.toHz, PICTURE_POINTS);
  return {
    spread: { ...rest, readings: readings.slice(0, own) },
    spots: hz.map((at, k) => ({ hz: at, level: readings[own + k] })),
    exact: { hz: picture, db: levelsAt(pathCircuit(sheet, 0, 'built'), outNet(sheet), picture) },
  };
}

/**
 * At which frequencies a board is measured by hand: where each reading is read, where the curve is
 * flattest or highest, an octave beyond the edges; and what lies widest apart is filled in.
 *
 * @returns rising, within the picture
 */
export function spotFrequencies(sheet: Sheet): number[] {
  const { fromHz, toHz } = sheet.view;
  const response = responseOf(new AcAnalysis(pathCircuit(sheet, 0, 'built')), outNet(sheet));
  const reader = new ResponseReader(response, readerOptions(sheet, 0));
  const found = sheet.readings.flatMap(({ measure, at }): number[] => {
    const hz = at ? undefined : guarded(() => readMeasure(reader, measure).atHz);
    if (hz === undefined) return [];
    return measure.measure === 'edge'
      ? [hz, measure.side === 'upper' ? hz * OUTWARDS : hz / OUTWARDS]
      : [hz];
  });
  const spots: number[] = [];
  const add = (hz: number) => {
    const set = Number(hz.toPrecision(DIGITS));
    if (set < fromHz || set > toHz || spots.length >= MOST_SPOTS) return;
    if (spots.every((s) => Math.max(s / set, set / s) > SAME)) spots.push(set);
  };
  add(guarded(() => reader.plateau().hz) ?? guarded(() => reader.highest().hz) ?? fromHz);
  found.forEach(add);
  while (spots.length < LEAST_SPOTS) {
    const before = spots.length;
    add(middleOfWidest([fromHz, ...spots, toHz]));
    if (spots.length === before) break;
  }
  return spots.sort((a, b) => a - b);
}

/** Of the widest gap between frequencies. */
function middleOfWidest(all: readonly number[]): number {
  const sorted = [...all].sort((a, b) => a - b);
  let widest = 0;
  for (let k = 1; k + 1 < sorted.length; k++)
    if (sorted[k + 1] / sorted[k] > sorted[widest + 1] / sorted[widest]) widest = k;
  return Math.sqrt(sorted[widest] * sorted[widest + 1]);
}

/** The step at which a spot is read. */
export const spotStep = ({ hz }: Pick<Spot, 'hz'>): string => `spot-${hz}`;

/**
 * What was read at the spots of a plan, as a take; nothing before two are read.
 *
 * @param own what stands before the names of this path’s steps
 */
export function takeOfSpots(
  spots: readonly Pick<Spot, 'hz'>[],
  reads: Readonly<Record<string, number>>,
  own = '',
): MeasuredCurve | null {
  const nameOf = (spot: Pick<Spot, 'hz'>) => `${own}${spotStep(spot)}`;
  const read = spots.filter((spot) => nameOf(spot) in reads);
  if (read.length < 2) return null;
  return {
    frequenciesHz: read.map(({ hz }) => hz),
    levelDb: read.map((spot) => reads[nameOf(spot)]),
  };
}

function guarded(find: () => number): number | undefined {
  try {
    const hz = find();
    return Number.isFinite(hz) ? hz : undefined;
  } catch (error) {
    // A curve without such a place has none to measure at.
    if (error instanceof ReedError) return undefined;
    throw error;
  }
}
