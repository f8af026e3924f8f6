import { isCrossover } from '@/core/crossover/crossover-design';
import { crossoverPicture } from '@/core/crossover/picture';
import { readingLines } from '@/core/crossover/reading-lines';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';
import { printMeasured, readingName } from '@/core/sheet/words';

/** A reading of one state, as it is built. */
export interface FigureOf {
  id: string;
  name: string;
  /** In the unit of its measure; null where it cannot be read. */
  value: number | null;
  /** The same with its unit, in words. */
  words: string;
}

/** A reading of two states. */
export interface FigureBetween {
  name: string;
  before: number | null;
  after: number | null;
  words: { before: string; after: string };
}

const NOT_READ = 'none';

/** Every reading of a sheet as it is built: of a crossover with true drivers, what it is judged by. */
export function figuresOf(sheet: Sheet): FigureOf[] {
  const alone: Sheet = { ...sheet, keeps: [] };
  if (isCrossover(alone)) {
    const layer = crossoverPicture(alone).layers.find((l) => l.id === 'built');
    return readingLines(alone.crossover, 'point', (part) => part).map(({ id, name, print }) => {
      const figure = layer?.figures[id] ?? null;
      return {
        id,
        name,
        value: figure?.value ?? null,
        words: figure ? print(figure) : NOT_READ,
      };
    });
  }
  const { readings } = new SheetEvaluator().evaluate(alone);
  const stages = sheet.ways[0].stages.map((s) => s.id);
  return sheet.readings.map((reading, i) => {
    const { built } = readings[i].results;
    const value = built && 'measured' in built ? built.measured.value : null;
    return {
      id: reading.id,
      name: readingName(reading, 'point', stages),
      value,
      words: value === null ? NOT_READ : printMeasured(reading.measure, value),
    };
  });
}

/**
 * The readings of two states beside each other: those of the later one, and what only the earlier one
 * had. Readings are of the same thing where they have the same name.
 */
export function figuresBetween(before: Sheet, after: Sheet): FigureBetween[] {
  const was = figuresOf(before);
  const is = figuresOf(after);
  const used = new Set<FigureOf>();
  // One name, one thing read: of readings that were set to read elsewhere both are told.
  const partner = (now: FigureOf) => {
    const alike = was.filter((f) => f.name === now.name && !used.has(f));
    return alike.find((f) => f.id === now.id) ?? alike[0];
  };
  const found = is.map((now): FigureBetween => {
    const old: FigureOf | undefined = partner(now);
    if (old) used.add(old);
    return between(old, now);
  });
  return [...found, ...was.filter((f) => !used.has(f)).map((old) => between(old, undefined))];
}

const between = (old: FigureOf | undefined, now: FigureOf | undefined): FigureBetween => ({
  name: (now ?? old)!.name,
  before: old?.value ?? null,
  after: now?.value ?? null,
  words: { before: old?.words ?? NOT_READ, after: now?.words ?? NOT_READ },
});
