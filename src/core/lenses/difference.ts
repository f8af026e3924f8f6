import { AcAnalysis } from '@/core/analysis/ac/ac';
import { explored } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { outNet } from '@/core/sheet/nets';
import { partlyTrue } from '@/core/sheet/path-circuit';
import { readingsReader } from '@/core/sheet/read-readings';
import { readerOptions } from '@/core/sheet/reader-options';
import type { Sheet } from '@/core/sheet/schema';
import { ALL_TRUTHS, TRUTHS, type Truth } from '@/core/sheet/truths';
import { withoutPause, type Pause } from './layers';

/** What one truth adds to the difference between the ideal path and the built one. */
export interface DifferenceTerm {
  truth: Truth;
  /** To the level, dB, by frequency. */
  levelDb: Float64Array;
  /** To each reading, by its id, in the unit of its measure; NaN where it cannot be told. */
  readings: Record<string, number>;
}

export interface DifferencePicture {
  frequenciesHz: Float64Array;
  /** Which frequencies come through at all, 0 or 1: deep in a stop band differences mean little. */
  heard: Uint8Array;
  /** Built less ideal: the terms add up to it. */
  whole: Omit<DifferenceTerm, 'truth'>;
  /** Only those that are there: a path without a load has no term for it. Largest first. */
  terms: DifferenceTerm[];
}

const PER_DECADE = 24;

/**
 * The difference between the ideal path and the built one, term by term.
 *
 * Truths are put into the ideal circuit one after the other until it is the built one, and taken in
 * the opposite order too; a term is the mean of what its truth changed on both occasions. So the terms
 * add up to the whole however they interact, and what two of them do only together is divided evenly
 * between them (the value of a game: L. S. Shapley, A Value for n-Person Games, 1953; of terms that
 * interact in pairs it takes no more orders than these two).
 *
 * @throws ReedError where the built or the ideal circuit cannot be solved
 */
export async function differenceLens(
  sheet: Sheet,
  pause: Pause = withoutPause,
): Promise<DifferencePicture> {
  const options = readerOptions(sheet, 0);
  const frequenciesHz = explored(sheet.view, options.landmarks ?? [], PER_DECADE);
  const readAll = readingsReader(sheet, 0);
  // Levels at the frequencies, then the readings.
  const read = (truths: readonly Truth[]) => {
    const analysis = new AcAnalysis(partlyTrue(sheet, 0, new Set(truths)));
    const levels = levelsDb(analysis.voltage(outNet(sheet), frequenciesHz));
    return Float64Array.of(...levels, ...readAll(analysis));
  };
  const there = presentIn(sheet);
  const nothing = read([]);
  const all = read(there);
  const terms = there.map((truth) => ({ truth, figures: new Float64Array(nothing.length) }));
  for (const order of [terms, [...terms].reverse()]) {
    let before = nothing;
    for (const [i, { figures }] of order.entries()) {
      await pause();
      const last = i === order.length - 1;
      const after = last ? all : read(order.slice(0, i + 1).map((t) => t.truth));
      for (let k = 0; k < figures.length; k++) figures[k] += (after[k] - before[k]) / 2;
      before = after;
    }
  }
  const named = (figures: Float64Array) => ({
    levelDb: figures.slice(0, frequenciesHz.length),
    readings: Object.fromEntries(
      sheet.readings.map(({ id }, r) => [id, figures[frequenciesHz.length + r]]),
    ),
  });
  const heard = heardIn(all.subarray(0, frequenciesHz.length));
  const mostOf = ({ levelDb }: DifferenceTerm) =>
    levelDb.reduce((most, db, k) => (heard[k] ? Math.max(most, Math.abs(db)) : most), 0);
  return {
    frequenciesHz,
    heard,
    whole: named(all.map((x, k) => x - nothing[k])),
    terms: terms
      .map(({ truth, figures }) => ({ truth, ...named(figures) }))
      .sort((a, b) => mostOf(b) - mostOf(a)),
  };
}

/** The truths that tell this path from its ideal: taking one of them away changes the circuit. */
function presentIn(sheet: Sheet): Truth[] {
  const text = (truths: ReadonlySet<Truth>) => JSON.stringify(partlyTrue(sheet, 0, truths).parts);
  const built = text(ALL_TRUTHS);
  return TRUTHS.filter((truth) => text(new Set(TRUTHS.filter((t) => t !== truth))) !== built);
}

/** What is so far under the top of the curve is not heard. */
const FAINT_DB = 60;

function heardIn(levelDb: Float64Array): Uint8Array {
  const top = levelDb.reduce((most, db) => Math.max(most, db), -Infinity);
  return Uint8Array.from(levelDb, (db) => (db > top - FAINT_DB ? 1 : 0));
}
