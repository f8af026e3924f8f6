import { partKindOf } from '@/core/parts';
import type { ReadingSpread } from '@/core/spread/spread';
import { OWN_SHARE } from '@/core/spread/deviations';
import { namesInCircuit } from './path-circuit';
import type { Sheet, Wanted } from './schema';
import { spreadOfSheet, type SheetSpreadOptions } from './spread-sheet';
import { drawnParts } from './stage';
import { USUAL_DEVIATIONS } from './usual-deviations';

/** Two parts that are better bought, or picked, alike. */
export interface Matching {
  parts: readonly [string, string];
  /** How near each other they are, as a part of their value. */
  within: number;
  /** What the reading is with them matched, and without. */
  matched: ReadingSpread;
  loose: ReadingSpread;
}

/** Boards that tell one pair from another. */
const BOARDS = 240;
/** Of a kind so many parts are tried against each other: those that have most to do with the reading. */
const MOST_PARTS = 6;
/** Whoever gains less than this part of the width gains nothing. */
const WORTH = 0.9;

/**
 * The two parts of one kind that make a reading surer when they are matched to each other, which
 * decides how deep a notch is: every pair is tried, board by board.
 *
 * @param reading its place among the readings of the sheet
 * @returns a generator that hands over after every pair; nothing where no pair is worth it
 */
export function* bestMatching(
  sheet: Sheet,
  reading: number,
  options: Omit<SheetSpreadOptions, 'boards' | 'tied'>,
): Generator<void, Matching | null> {
  const one = { ...sheet, readings: [sheet.readings[reading]] };
  const { wanted } = one.readings[0];
  const spreadOf = (tied?: readonly [string, string]): ReadingSpread | null => {
    const run = spreadOfSheet(one, { ...options, boards: BOARDS, ...(tied ? { tied } : {}) });
    run.draw(BOARDS);
    return run.result(tied === undefined).readings[0];
  };
  const loose = spreadOf();
  yield;
  if (!loose) return null;
  let best: Matching | null = null;
  let bestBy = WORTH * lackOf(loose, loose, wanted);
  for (const { parts, within } of pairsOf(sheet, options.way ?? 0, loose.shares)) {
    const matched = spreadOf(parts);
    yield;
    if (!matched) continue;
    const lack = lackOf(matched, loose, wanted);
    if (lack < bestBy) [best, bestBy] = [{ parts, within, matched, loose }, lack];
  }
  return best;
}

/** What is to be made less: how far boards reach to the side that is not wanted, or how wide they lie. */
function lackOf(spread: ReadingSpread, loose: ReadingSpread, wanted: Wanted | undefined): number {
  const width = loose.p95 - loose.p5;
  if (wanted?.is === 'at-most') return (spread.p95 - loose.p95) / width + 1;
  if (wanted?.is === 'at-least') return (loose.p5 - spread.p5) / width + 1;
  return (spread.p95 - spread.p5) / width;
}

/** Pairs of a kind within a stage, those that have most to do with the reading first. */
function pairsOf(
  sheet: Sheet,
  way: number,
  shares: Readonly<Record<string, number>>,
): { parts: readonly [string, string]; within: number }[] {
  const nameOf = namesInCircuit(sheet, way);
  const deviations = sheet.parts.deviations ?? USUAL_DEVIATIONS;
  return sheet.ways[way].stages.flatMap((stage) =>
    (['resistor', 'capacitor'] as const).flatMap((kind) => {
      const own = drawnParts(stage)
        .filter((p) => p.kind === kind && partKindOf(p.kind).series !== null)
        .map(({ id }) => ({
          name: nameOf(stage, id),
          tolerance: stage.parts[id]?.tolerance ?? deviations[kind],
        }))
        .sort((a, b) => (shares[b.name] ?? 0) - (shares[a.name] ?? 0))
        .slice(0, MOST_PARTS);
      return own.flatMap((a, i) =>
        own.slice(i + 1).map((b) => ({
          parts: [a.name, b.name] as const,
          within: 2 * OWN_SHARE * Math.max(a.tolerance, b.tolerance),
        })),
      );
    }),
  );
}
