import { formatFixed, formatQuantity } from '@/core/quantity/format';
import { HALF_POWER_DB } from '@/core/response/decibels';
import type { Measure } from '@/core/response/readings';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { quantityOfPart, valuesOf } from '@/core/sheet/stage';
import { printMeasured } from '@/core/sheet/words';
import type { Goal } from './lesson';

/*
 * Goals are read off the solved circuit, as the sheet's own readings are: a lesson knows no answer by
 * heart.
 */

export const upperEdge: Measure = {
  measure: 'edge',
  downDb: HALF_POWER_DB,
  side: 'upper',
  reference: { from: 'plateau' },
};
export const levelAt = (atHz: number): Measure => ({ measure: 'level', atHz });

/** What a sheet answers, solved once for all goals of a lesson. */
export class Answers {
  private readonly evaluator = new SheetEvaluator();
  constructor(readonly sheet: Sheet) {}

  /** A number of the circuit as it is built; null where it has none such. */
  read(measure: Measure): number | null {
    const alone = { ...this.sheet, keeps: [], readings: [{ id: 'goal', measure }] };
    const { built } = this.evaluator.evaluate(alone).readings[0].results;
    return built && 'measured' in built ? built.measured.value : null;
  }

  /** Level that is lost where a stage meets the next, dB. */
  jointLossDb(before: string): number | null {
    const { joints } = this.evaluator.evaluate({ ...this.sheet, keeps: [] });
    return joints.find((j) => j.before === before)?.lossDb ?? null;
  }

  get stages(): readonly Stage[] {
    return this.sheet.ways[0].stages;
  }
}

/** Something that is or is not so; without an answer it cannot be read. */
export const so = (what: string, is: string | null, met: boolean): Goal => ({
  what,
  is: is ?? 'cannot be read',
  met,
});

/** A number that is to come near a value, as a part of it. */
export function near(
  what: string,
  answers: Answers,
  measure: Measure,
  value: number,
  within: number,
): Goal {
  const is = answers.read(measure);
  const wanted = printMeasured(measure, value);
  const isAbout = is !== null && Math.abs(is / value - 1) <= within;
  return so(`${what} at ${wanted}`, is === null ? null : printMeasured(measure, is), isAbout);
}

/** A level that is to be at least, or at most, so high; dB. */
export function level(
  what: string,
  answers: Answers,
  measure: Measure,
  bound: { atLeast: number } | { atMost: number },
): Goal {
  const is = answers.read(measure);
  const [words, limit] =
    'atLeast' in bound ? ['at least', bound.atLeast] : ['at most', bound.atMost];
  const met = is !== null && ('atLeast' in bound ? is >= limit : is <= limit);
  return so(
    `${what} ${words} ${formatQuantity(limit, 'decibels', { digits: 3, unit: true })}`,
    is === null ? null : printMeasured(measure, is),
    met,
  );
}

/** A figure of a stage, as its topology's own equations have it. */
export function figure(
  name: 'f0' | 'Q' | 'gain',
  is: number | undefined,
  wanted: number,
  within = 0.03,
): Goal {
  const print = (x: number) =>
    name === 'f0'
      ? formatQuantity(x, 'hertz', { digits: 3, unit: true })
      : formatQuantity(x, 'ratio', { digits: 3 });
  return so(
    `${name === 'f0' ? 'f₀' : name} at ${print(wanted)}`,
    is === undefined ? null : print(is),
    is !== undefined && Math.abs(is / wanted - 1) <= within,
  );
}

/** Parts that have to stay as they were. */
export function kept(parts: readonly string[], stage: Stage | undefined, begun: Stage): Goal {
  const now = stage ? valuesOf(stage) : {};
  const was = valuesOf(begun);
  const moved = parts.filter((id) => now[id] !== was[id]);
  const values = parts.map((id) => {
    const quantity = quantityOfPart(begun, id)?.quantity ?? 'ratio';
    return id in now ? formatQuantity(now[id], quantity, { digits: 3, unit: true }) : 'gone';
  });
  return so(
    `${parts.join(', ')} as ${parts.length === 1 ? 'it was' : 'they were'}`,
    moved.length === 0
      ? values.join(', ')
      : `${moved.join(', ')} ${moved.length === 1 ? 'is' : 'are'} another`,
    moved.length === 0,
  );
}

/** Every stage has to be there with the values that it had. */
export function unmoved({ stages }: Answers, begun: Sheet): Goal {
  const were = begun.ways[0].stages;
  const same =
    stages.length === were.length &&
    were.every((was, i) => {
      const [now, then] = [valuesOf(stages[i]), valuesOf(was)];
      return Object.keys(then).every((part) => now[part] === then[part]);
    });
  return so('Parts as they were', same ? 'they are' : 'others', same);
}

export const decibels = (x: number, digits = 1): string => `${formatFixed(x, digits, 'point')} dB`;
