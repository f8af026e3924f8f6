import Papa from 'papaparse';
import { ReedError } from '@/core/errors';
import { withoutMark } from '@/core/document/json';
import { readTouchstone } from './touchstone';

/** One row that was read: frequency, level or ohms, and phase where there is one. */
export interface TableRow {
  line: number;
  frequencyHz: number;
  value: number;
  phaseDegrees?: number;
}

/** A line that was not taken, or was taken with something to be said of it. */
export interface TableRemark {
  line: number;
  text: string;
  why: string;
}

/** What an importer read: every line of the text is a row, refused, or says no numbers. */
export interface ReadTable {
  /** Rising in frequency. */
  rows: TableRow[];
  refused: TableRemark[];
  /** Lines that were taken all the same. */
  noted: TableRemark[];
  /** What the text was read as. */
  read: {
    columns: 2 | 3;
    separator: 'tab' | 'semicolon' | 'comma' | 'space' | 'none';
    decimal: 'point' | 'comma';
    /** Lines of words at the beginning, or that are marked as comments. */
    comments: number;
    /** What a Touchstone file holds, turned into ohms and degrees. */
    touchstone?: { parameter: 'S' | 'Z' | 'Y'; form: 'MA' | 'DB' | 'RI'; referenceOhms: number };
  };
}

/** Most lines of one text. */
export const MOST_TABLE_LINES = 100_000;
/** What no measurement goes beyond. */
const MOST_HZ = 1e9;
const MOST_VALUE = 1e9;

const COMMENT = /^\s*(?:[#;*!%"'/\\]|\/\/|--|rem\b)/i;
const NUMBER = /^[-+\u2212]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][-+]?\d+)?$/;

/**
 * Read a table of two or three columns: frequency, level or ohms, phase. Cells stand apart by tabs,
 * semicolons, commas or spaces; the decimal mark is a point or a comma; lines that begin with a sign
 * of comment or hold only words are passed over. Rows may stand in any order. A Touchstone file of one
 * port is known by its option line.
 *
 * @throws ReedError `document` for a text with no row at all, too many lines, or that is no text
 */
export function readTable(text: string): ReadTable {
  if (text.includes('\0'))
    throw new ReedError('document', 'The table is not a text file: export it as text or CSV.');
  const lines = withoutMark(text).split(/\r\n|\r|\n/);
  if (lines.length > MOST_TABLE_LINES)
    throw new ReedError(
      'document',
      `The table has ${lines.length} lines and at most ${MOST_TABLE_LINES} are read: thin it out.`,
    );
  const option = lines.findIndex(isOptionLine);
  const table = option >= 0 ? readTouchstone(lines, option) : readPlain(lines);
  return settled(table, lines);
}

/** Cells of one line, in whatever they stand apart by. */
interface Shape {
  separator: ReadTable['read']['separator'];
  decimal: 'point' | 'comma';
  /** Every comma could as well group thousands. */
  grouping?: boolean;
}

function readPlain(lines: readonly string[]): Draft {
  const shape = shapeOf(lines);
  const { separator, decimal } = shape;
  const draft: Draft = {
    rows: [],
    refused: [],
    noted: [],
    read: { columns: 2, comments: 0, separator, decimal },
  };
  let begun = false;
  lines.forEach((text, i) => {
    const line = i + 1;
    if (text.trim() === '') return;
    const cells = cellsOf(text, shape);
    if (COMMENT.test(text) && !isQuotedRow(cells)) return void draft.read.comments++;
    // Words before the first row are a heading.
    if (!begun && !startsWithNumber(cells)) return void draft.read.comments++;
    begun = true;
    try {
      draft.rows.push(rowOf(line, cells, shape));
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      draft.refused.push({ line, text: text.slice(0, 200), why: error.message });
    }
  });
  return draft;
}

/** Some programs put every cell into quotes. */
const isQuotedRow = (cells: readonly string[]) => startsWithNumber(cells) && cells.length >= 2;
const startsWithNumber = (cells: readonly string[]) =>
  cells.length > 0 && /^[-+\u2212]?[.,]?\d/.test(cells[0]);

function rowOf(line: number, cells: readonly string[], shape: Shape): TableRow {
  const [hz, value, phase] = [0, 1, 2].map((i) => numberIn(cells, i, shape));
  if (cells.length > 3 && cells.slice(3).some((c) => c !== ''))
    throw new ReedError(
      'document',
      `it has ${cells.length} columns where two or three were expected`,
    );
  if (hz === undefined) throw new ReedError('document', 'the frequency is missing');
  if (value === undefined) throw new ReedError('document', 'the level or resistance is missing');
  return {
    line,
    frequencyHz: hz,
    value,
    ...(phase === undefined ? {} : { phaseDegrees: phase }),
  };
}

const COLUMN_NAMES = ['frequency', 'level or resistance', 'phase'];

function numberIn(
  cells: readonly string[],
  column: number,
  { decimal, grouping }: Shape,
): number | undefined {
  const text = cells[column];
  if (text === undefined || text === '') return undefined;
  const plain = text.replace('\u2212', '-');
  if (grouping && GROUPED.test(plain))
    throw new ReedError(
      'document',
      `the ${COLUMN_NAMES[column]} “${text.slice(0, 40)}” could be thousands or a fraction: write it without the comma`,
    );
  const marked = decimal === 'comma' ? plain.replace(',', '.') : plain;
  const number = NUMBER.test(plain) ? Number(marked) : NaN;
  if (!Number.isFinite(number))
    throw new ReedError(
      'document',
      `the ${COLUMN_NAMES[column]} “${text.slice(0, 40)}” is no number`,
    );
  return number;
}

const SPLITS = { tab: /\t/, semicolon: /;/, comma: /,/, space: /\s+/, none: /$^/ } as const;

function cellsOf(text: string, { separator }: Pick<Shape, 'separator'>): string[] {
  const line = text.trim();
  const cells =
    line.includes('"') && separator in MARKS
      ? (Papa.parse<string[]>(line, { delimiter: MARKS[separator as keyof typeof MARKS] })
          .data[0] ?? [])
      : line.split(SPLITS[separator]);
  return cells
    .map((cell) =>
      cell
        .trim()
        .replace(/^"(.*)"$/, '$1')
        .trim(),
    )
    .filter((cell, i, all) => cell !== '' || i < all.length - 1);
}

const MARKS = { tab: '\t', semicolon: ';', comma: ',' } as const;
/** A number whose commas may group thousands. */
const GROUPED = /^[-+\u2212]?[1-9]\d{0,2}(?:,\d{3})+$/;

/**
 * How a text writes its numbers: the separator is the first of tab, semicolon, space and comma by
 * which most lines of digits fall into two or three numbers; a comma is the decimal mark where it
 * stands within cells and no point does. Where each of these commas could as well group thousands,
 * their lines are refused, not guessed at.
 */
function shapeOf(lines: readonly string[]): Shape {
  const digits = lines.filter((l) => /^[\s"]*[-+\u2212]?[.,]?\d/.test(l)).slice(0, 400);
  const separators = ['tab', 'semicolon', 'space', 'comma'] as const;
  // Where no line is good as a whole, what parts a number from something else.
  const parting = separators.find((separator) =>
    digits.some((l) => {
      const cells = cellsOf(l, { separator });
      return cells.length > 1 && NUMBER.test(cells[0]);
    }),
  );
  let best: Shape = { separator: parting ?? 'none', decimal: 'point' };
  let most = 0;
  for (const separator of separators)
    for (const decimal of ['point', 'comma'] as const) {
      const split = digits.map((l) => cellsOf(l, { separator }));
      const good = split.filter(
        (cells) =>
          (cells.length === 2 || cells.length === 3) &&
          cells.every((c) => NUMBER.test(c) && !c.includes(decimal === 'comma' ? '.' : ',')),
      );
      if (good.length <= most) continue;
      most = good.length;
      const commas = good.flat().filter((c) => c.includes(','));
      best = { separator, decimal, grouping: commas.every((c) => GROUPED.test(c)) };
    }
  return best;
}

/** “# Hz S MA R 50” and the like; “# Hz, dB” over a plain table is a comment. */
function isOptionLine(text: string): boolean {
  const words = /^\s*#(.*?)(?:!.*)?$/.exec(text)?.[1].trim().toLowerCase().split(/\s+/) ?? [];
  const known = words.every(
    (w, i) =>
      /^(?:[kmg]?hz|[szyhg]|ma|db|ri|r)$/.test(w) ||
      (words[i - 1] === 'r' && /^[\d.eE+]+$/.test(w)),
  );
  const has = (...any: string[]) => any.some((w) => words.includes(w));
  return known && (has('r', 'ma', 'ri') || (has('db') && has('s', 'z', 'y', 'h', 'g')));
}

export type Draft = Omit<ReadTable, 'read'> & { read: ReadTable['read'] };

/** Refuse what cannot be, put what is left in order, and say what was done. */
function settled(draft: Draft, lines: readonly string[]): ReadTable {
  const { refused, noted } = draft;
  const textOf = (line: number) => (lines[line - 1] ?? '').slice(0, 200);
  const refuse = (line: number, why: string) => {
    refused.push({ line, text: textOf(line), why });
    return false;
  };
  const seen = new Map<number, number>();
  let highest = 0;
  const rows = draft.rows.filter(({ line, frequencyHz, value, phaseDegrees }) => {
    if (!(frequencyHz > 0))
      return refuse(line, frequencyHz < 0 ? 'the frequency is negative' : 'the frequency is zero');
    if (frequencyHz > MOST_HZ) return refuse(line, 'the frequency is above 1 GHz');
    if (Math.abs(value) > MOST_VALUE || Math.abs(phaseDegrees ?? 0) > MOST_VALUE)
      return refuse(line, 'the number is larger than any measurement');
    const before = seen.get(frequencyHz);
    if (before !== undefined)
      return refuse(line, `the frequency was given before, in line ${before}`);
    seen.set(frequencyHz, line);
    if (frequencyHz < highest)
      noted.push({
        line,
        text: textOf(line),
        why: 'the frequency is below one before it; the row was put in its place',
      });
    highest = Math.max(highest, frequencyHz);
    return true;
  });
  const withPhase = rows.filter((r) => r.phaseDegrees !== undefined).length;
  // A phase that some rows lack is none: those rows are said to lack it.
  const three = withPhase > rows.length / 2;
  const kept = rows.filter(
    (r) => !three || r.phaseDegrees !== undefined || refuse(r.line, 'the phase is missing'),
  );
  if (!three)
    for (const row of kept)
      if (row.phaseDegrees !== undefined) {
        noted.push({
          line: row.line,
          text: textOf(row.line),
          why: 'the phase was left out: most rows have none',
        });
        delete row.phaseDegrees;
      }
  if (kept.length === 0) {
    const first = refused[0] as TableRemark | undefined;
    throw new ReedError(
      'document',
      first
        ? `The table has no row that can be read; line ${first.line}: ${first.why}.`
        : 'The table has no row of numbers: two or three columns were expected, frequency first.',
    );
  }
  const inOrder = (a: { line: number }, b: { line: number }) => a.line - b.line;
  return {
    rows: kept.sort((a, b) => a.frequencyHz - b.frequencyHz),
    refused: refused.sort(inOrder),
    noted: noted.sort(inOrder),
    read: { ...draft.read, columns: three ? 3 : 2 },
  };
}
