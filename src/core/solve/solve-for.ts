import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import { messageOf, ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { Band, Landmark } from '@/core/response/landmarks';
import {
  quantityOfMeasure,
  readMeasure,
  ResponseReader,
  type Measure,
  type ReadingContext,
} from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { isFraction, partNumber, type PartNumber } from './part-number';
import { rootsAlong } from './roots-along';

/** What one part must be so that one reading is as wanted. */
export interface SolveRequest {
  circuit: Circuit;
  probe: string;
  /** The part, or “part.field”. */
  part: string;
  measure: Measure;
  want: number;
  /** Between which it is looked for; by default three decades either way. */
  from?: number;
  to?: number;
  span: Band;
  landmarks?: readonly Landmark[];
  context?: ReadingContext;
}

export interface Solution {
  value: number;
  /** What the reading is with it. */
  reads: number;
}

export interface SolveAnswer {
  /** Rising; several where several values do it. */
  solutions: Solution[];
  /** Why there is none, in words. */
  why: string | null;
  part: string;
  field: string;
  from: number;
  to: number;
}

/** Looked at first: so many places, and how far either way. */
const PLACES = 97;
const REACH = 1000;
/** A reading this near to what is wanted is it, as a part of the two, or in its unit where that is nought. */
const CLOSE = 1e-6;
/** A value is told to this part of itself. */
const FINE = 1e-11;

/**
 * All values of one part that bring a reading to what is wanted of it. The reading is looked at over
 * the whole range first, so that several solutions are found where there are several, and where there
 * is none it is said how far it goes.
 *
 * @throws ReedError `circuit` for a part that is not there, `range` for bounds that enclose nothing
 */
export function solveFor(request: SolveRequest): SolveAnswer {
  const { circuit, measure, want } = request;
  const analysis = new AcAnalysis(circuit);
  const number = partNumber(analysis, request.part);
  const { from, to } = rangeOf(number, request);
  const even = isFraction(number.field);
  const sign = Math.sign(number.value) || 1;
  const valueAt = (u: number) => (even ? u : sign * Math.exp(u));
  const problems = new Set<string>();
  const read = readerOf(analysis, number, request, problems);
  const [low, high] = even ? [from, to] : [Math.log(from), Math.log(to)];
  const grid = Float64Array.from(
    { length: PLACES },
    (_, k) => low + ((high - low) * k) / (PLACES - 1),
  );
  const memo = new Map<number, number>();
  const off = (u: number): number => {
    let y = memo.get(u);
    if (y === undefined) memo.set(u, (y = read(valueAt(u)) - want));
    return y;
  };
  const start = even ? number.value : Math.log(Math.abs(number.value));
  const roots = rootsAlong(off, {
    // The value that it has now is looked at too: a solution may lie close by.
    grid: withPlace(grid, start),
    close: CLOSE * Math.max(Math.abs(want), quantityScale(quantityOfMeasure(measure))),
    fine: FINE,
  });
  const solutions = roots.map((u) => ({ value: valueAt(u), reads: off(u) + want }));
  const seen = [...grid].map(off).filter((y) => !Number.isNaN(y));
  return {
    solutions,
    why: solutions.length > 0 ? null : whyNot(request, number, { from, to }, seen, [...problems]),
    part: number.part,
    field: number.field,
    from,
    to,
  };
}

/** The grid with one more place, unless it is among them already or beyond. */
function withPlace(grid: Float64Array, place: number): Float64Array {
  const inside = place > grid[0] && place < grid[grid.length - 1];
  const there = grid.some((x) => Math.abs(x - place) < 1e-6);
  return inside && !there ? Float64Array.from([...grid, place]).sort() : grid;
}

/** Decibels and degrees go through nought: there, one of them is the measure. */
const quantityScale = (kind: QuantityKind): number => (kind === 'hertz' ? 0 : 1);

function rangeOf(
  { field, value, part }: PartNumber,
  { from, to }: SolveRequest,
): { from: number; to: number } {
  const size = Math.abs(value);
  const range = isFraction(field)
    ? { from: from ?? 0, to: to ?? 1 }
    : { from: from ?? size / REACH, to: to ?? size * REACH };
  if (!(range.from < range.to) || (!isFraction(field) && !(range.from > 0)))
    throw new ReedError(
      'range',
      `Between ${range.from} and ${range.to} there is no value for ${part}: give a least one above nought and a greatest one above it.`,
      { part },
    );
  return range;
}

/** The reading for a value of the part; NaN where there is none. */
function readerOf(
  analysis: AcAnalysis,
  { parameter }: PartNumber,
  { probe, measure, span, landmarks, context }: SolveRequest,
  problems: Set<string>,
): (value: number) => number {
  return (value) => {
    try {
      analysis.values[parameter] = value;
      analysis.update();
      const reader = new ResponseReader(responseOf(analysis, probe), { span, landmarks, context });
      return readMeasure(reader, measure).value;
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      problems.add(messageOf(error));
      return NaN;
    }
  };
}

function whyNot(
  { measure, want }: SolveRequest,
  { part, field }: PartNumber,
  { from, to }: { from: number; to: number },
  seen: readonly number[],
  problems: readonly string[],
): string {
  const kind = quantityOfMeasure(measure);
  const between = `With ${part}${isFraction(field) ? ` (${field})` : ''} between ${plain(field, from)} and ${plain(field, to)}`;
  if (seen.length === 0) return `${between} there is no such reading: ${problems[0] ?? ''}`;
  const [least, most] = [Math.min(...seen) + want, Math.max(...seen) + want];
  const told = (x: number) => inWords(x, kind, 5);
  if (most - least <= CLOSE * Math.max(Math.abs(most), quantityScale(kind)))
    return `${between} the reading stays at ${told(least)}: ${part} does not bear on it.`;
  const beyond =
    want < least || want > most
      ? `it never reaches ${told(want)}`
      : `it jumps over ${told(want)} without being it`;
  return `${between} the reading goes from ${told(least)} to ${told(most)}: ${beyond}.`;
}

const FIELD_KINDS: Readonly<Record<string, QuantityKind>> = {
  ohms: 'ohms',
  farads: 'farads',
  henries: 'henries',
  siemens: 'siemens',
};
const plain = (field: string, value: number): string =>
  field in FIELD_KINDS
    ? inWords(value, FIELD_KINDS[field], 4)
    : String(Number(value.toPrecision(4)));
