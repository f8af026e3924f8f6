import { messageOf } from '@/core/errors';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { soundLevels } from '@/core/speaker/sound-levels';
import { evenly } from '@/core/speaker/tune/measure';
import { delaysOf } from './group-delay';
import { redivided } from './make';
import { crossoverFigures } from './readings';
import { solveCrossover } from './solve';
import { isCrossover, type CrossoverDesign } from './crossover-design';
import { driverStrains } from './strain';
import { tuningOf, USUAL_WISH, withTuning, type TunedCrossover, type TuneWish } from './tune';

/** A way of dividing the band that has its followers. */
export interface School {
  id: string;
  words: string;
  division: Pick<Crossover, 'order' | 'alignment'>;
  /** What it is tuned to beside a flat sum. */
  wish: Partial<TuneWish>;
}

/** Gentle slopes keep ways in phase over a wide range, steep ones keep each way out of the other’s. */
export const SCHOOLS: readonly School[] = [
  {
    id: 'gentle',
    words: 'first order, in phase',
    division: { order: 1, alignment: 'butterworth' },
    wish: { acousticOrder: 2, wayWithinDb: undefined, trackDegrees: 45 },
  },
  {
    id: 'second',
    words: 'second order',
    division: { order: 2, alignment: 'linkwitz-riley' },
    wish: { acousticOrder: 3 },
  },
  {
    id: 'third',
    words: 'third order',
    division: { order: 3, alignment: 'butterworth' },
    wish: { acousticOrder: 4 },
  },
  {
    id: 'steep',
    words: 'fourth order, steep',
    division: { order: 4, alignment: 'linkwitz-riley' },
    wish: { acousticOrder: 5 },
  },
];

/** What a school makes of a crossover. */
export interface SchoolResult {
  id: string;
  sumDb: Float64Array;
  /** About its mean over the band, dB, and how deep the worst dip is a little above the axis. */
  withinDb: number;
  dipDb: number;
  phaseDegrees: number;
  /** Into the driver of the uppermost way, of music at the loud level; and how far its cone moves. */
  tweeterWatts: number;
  tweeterMillimetres?: number;
  /** What its ways are made of. */
  parts: number;
  /** Between the earliest and the latest tone of the band. */
  delaySpread: number;
  /** What a search found for it, where one was made. */
  tuned?: TunedCrossover;
}

export interface SchoolsPicture {
  frequenciesHz: Float64Array;
  results: SchoolResult[];
  problem: string | null;
}

const POINTS = 181;

/** A crossover as a school has it, as its textbook does. */
export const schooled = <D extends Pick<CrossoverDesign, 'ways' | 'parts' | 'crossover'>>(
  design: D,
  { division }: School,
): D => redivided(design, { ...design.crossover, ...division });

/** What each school makes of a crossover, by its textbook, on the true drivers. */
export function schoolsPicture(sheet: Sheet): SchoolsPicture {
  const frequenciesHz = evenly(sheet.view.fromHz, sheet.view.toHz, POINTS);
  if (!isCrossover(sheet)) return { frequenciesHz, results: [], problem: null };
  try {
    const results = SCHOOLS.map((school) =>
      resultOf(school, schooled(sheet, school), `${sheet.id} ${school.id}`, frequenciesHz),
    );
    return { frequenciesHz, results, problem: null };
  } catch (error) {
    return { frequenciesHz, results: [], problem: messageOf(error) };
  }
}

/** So many starts: each school is looked at, none to the last. */
const STARTS = 2;

/**
 * Each school tuned on the true drivers, told as soon as it is there.
 *
 * @throws ReedError for a crossover that cannot be solved
 */
export function* tunedSchools(
  sheet: Sheet & CrossoverDesign,
): Generator<SchoolResult | null, SchoolResult[]> {
  const frequenciesHz = evenly(sheet.view.fromHz, sheet.view.toHz, POINTS);
  const results: SchoolResult[] = [];
  for (const school of SCHOOLS) {
    const design = schooled(sheet, school);
    const search = tuningOf(design, { ...USUAL_WISH, ...school.wish, snap: false, starts: STARTS });
    for (;;) {
      const step = search.next();
      if (step.done) {
        const tuned = step.value.found[0];
        const name = `${sheet.id} ${school.id} tuned`;
        const result = resultOf(school, withTuning(design, tuned), name, frequenciesHz);
        results.push({ ...result, tuned });
        yield results[results.length - 1];
        break;
      }
      yield null;
    }
  }
  return results;
}

function resultOf(
  { id }: School,
  design: CrossoverDesign,
  name: string,
  hz: Float64Array,
): SchoolResult {
  const speaker = solveCrossover(design, 'true', name);
  const { fromHz, toHz } = design.crossover;
  const figures = crossoverFigures(speaker, design);
  const inBand = evenly(fromHz, toHz, POINTS);
  const { sum: delays } = delaysOf(speaker, inBand);
  const tweeter = driverStrains(design, speaker, evenly(20, 20_000, POINTS)).at(-1)!;
  return {
    id,
    sumDb: soundLevels(speaker.sound(speaker.electrical(hz)).sum),
    withinDb: figures.sum!.value,
    dipDb: figures.dip?.value ?? 0,
    phaseDegrees: figures.phase?.value ?? 0,
    tweeterWatts: tweeter.musicWatts,
    ...(tweeter.mostMillimetres === undefined
      ? {}
      : { tweeterMillimetres: tweeter.mostMillimetres }),
    parts: design.ways.reduce(
      (n, way) =>
        n +
        way.stages.filter((s) => !s.bypassed).reduce((m, s) => m + Object.keys(s.parts).length, 0),
      0,
    ),
    delaySpread: Math.max(...delays) - Math.min(...delays),
  };
}
