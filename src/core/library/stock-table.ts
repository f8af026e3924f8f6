import Papa from 'papaparse';
import { messageOf, ReedError } from '@/core/errors';
import type { DecimalMark } from '@/core/quantity/parse';
import { quoted } from '@/core/text';
import { partKindOf, withArticle } from '@/core/parts';
import { deviceCalled, figuresOf, readFigure, withToldFigures } from '@/core/parts/device-figures';
import { readEntry } from './entry';
import { stockKind, type StockEntry } from './stock';
import { figureNamed, headingOf, type StockColumn, type TableColumn } from './stock-columns';
import { stockLine, stockWords, type StockWords } from './stock-words';

/** A text taken apart into rows of cells, with what its first row seems to say. */
export interface StockTable {
  /** What each column says, as far as it could be guessed; nothing where it is left out. */
  columns: (TableColumn | null)[];
  /** The unit that stands over each column, for numbers that have none. */
  units: (string | null)[];
  /** Names of the columns, where there is a heading. */
  heading: string[] | null;
  rows: { line: number; cells: string[] }[];
}

/** A line that could not be read, and why. */
export interface BadLine {
  line: number;
  text: string;
  why: string;
}

/** What came of a table or of lines: nothing of it is in the drawer yet. */
export interface StockRead {
  good: { line: number; words: StockWords }[];
  bad: BadLine[];
}

/** Most rows that are read of one text. */
export const MOST_LINES = 20_000;

/**
 * Take a table of parts apart: comma, semicolon or tab between cells, with or without a heading.
 *
 * @throws ReedError `document` where there are too many lines
 */
export function stockTable(text: string): StockTable {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false });
  if (data.length > MOST_LINES)
    throw new ReedError(
      'document',
      `The table has ${data.length} lines and at most ${MOST_LINES} are read: split it.`,
    );
  const rows = data
    .map((cells, i) => ({ line: i + 1, cells: cells.map((c) => c.trim()) }))
    .filter(({ cells }) => cells.some((c) => c !== ''));
  const first = rows[0]?.cells ?? [];
  const headings = first.map(headingOf);
  const named = headings.map((h) => h.column);
  const hasHeading = named.includes('value') || named.filter((c) => c !== null).length > 1;
  if (!hasHeading) {
    const nothing = first.map(() => null);
    return { columns: nothing, units: nothing, heading: null, rows };
  }
  // A column said twice is the first.
  const columns = named.map((c, i) => (c !== null && named.indexOf(c) === i ? c : null));
  return { columns, units: headings.map((h) => h.unit), heading: first, rows: rows.slice(1) };
}

/**
 * Read the rows of a table by what its columns are said to be. A table whose columns say nothing is
 * read as typed lines.
 */
export function readStockTable(
  { columns, units, rows }: Pick<StockTable, 'columns' | 'rows'> & Partial<StockTable>,
  mark: DecimalMark = 'point',
): StockRead {
  const asLines = columns.every((c) => c === null);
  return readEach(
    rows.map(({ line, cells }) => ({ line, text: cells.join(asLines ? ' ' : ', '), cells })),
    ({ cells, text }) =>
      asLines ? stockLine(text, mark) : stockRow(columns, withUnits(cells, columns, units), mark),
  );
}

/** Read parts as they are typed, one a line; empty lines say nothing. */
export const readStockLines = (text: string, mark: DecimalMark = 'point'): StockRead =>
  readEach(
    text
      .split(/\r?\n/)
      .map((line, i) => ({ line: i + 1, text: line.trim() }))
      .filter((l) => l.text !== '')
      .slice(0, MOST_LINES),
    ({ text: line }) => stockLine(line, mark),
  );

function readEach<L extends { line: number; text: string }>(
  lines: readonly L[],
  read: (line: L) => StockWords,
): StockRead {
  const found: StockRead = { good: [], bad: [] };
  for (const line of lines) {
    try {
      const words = read(line);
      checked(words);
      found.good.push({ line: line.line, words });
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      found.bad.push({ line: line.line, text: line.text.slice(0, 200), why: messageOf(error) });
    }
  }
  return found;
}

/** An entry of what is said, under an id. */
export const stockEntryOf = (words: StockWords, id: string): StockEntry => ({
  format: 'jaunty-reed/stock',
  version: 1,
  id,
  ...words,
});

/** @throws ReedError `document` where a field is beyond its bounds */
const checked = (words: StockWords): StockEntry => readEntry(stockKind, stockEntryOf(words, 'new'));

/** Columns whose numbers have units. */
const MEASURED: readonly (TableColumn | null)[] = [
  'value',
  'tolerance',
  'voltage rating',
  'power rating',
];
const BARE = /^[-+\u2212]?\d+(?:[.,]\d+)?(?:e[-+]?\d+)?$/i;

/** The cells of a row, numbers that have no unit with that of their column. */
const withUnits = (
  cells: readonly string[],
  columns: StockTable['columns'],
  units: StockTable['units'] = [],
): string[] =>
  cells.map((cell, i) => {
    const unit = units[i];
    const isMeasured = MEASURED.includes(columns[i]) || figureNamed(columns[i]) !== undefined;
    return unit && isMeasured && BARE.test(cell) ? `${cell} ${unit}` : cell;
  });

function stockRow(
  columns: StockTable['columns'],
  cells: readonly string[],
  mark: DecimalMark,
): StockWords {
  const cell = (column: TableColumn): string | undefined => {
    const text = cells[columns.indexOf(column)] as string | undefined;
    return text === undefined || text === '' ? undefined : text;
  };
  const numberIn = (column: StockColumn, unit: RegExp): number | undefined => {
    const text = cell(column);
    if (text === undefined) return undefined;
    const plain = text
      .replace(unit, '')
      .replace(/^(±|\+\/-|\+-)/, '')
      .trim();
    const value = Number(
      mark === 'comma' ? plain.replace(',', '.') : plain.replace(/^(\d+),(\d+)$/, '$1.$2'),
    );
    if (plain === '' || !Number.isFinite(value))
      throw new ReedError('document', `The ${column} ${quoted(text)} is no number.`);
    return value;
  };
  const tolerance = numberIn('tolerance', /%/);
  const power = numberIn('power rating', /m?W$/i);
  const named = {
    kind: cell('kind'),
    valueText: cell('value'),
    quantity: numberIn('quantity', /x|×|pcs?\.?|pieces?/i),
    // “5” and “5 %” are five per cent; “0.05” is as well.
    tolerance:
      tolerance === undefined
        ? undefined
        : cell('tolerance')!.includes('%') || tolerance >= 0.2
          ? tolerance / 100
          : tolerance,
    make: cell('make'),
    ppmPerKelvin: numberIn('temperature coefficient', /ppm(\/K|\/°C)?/i),
    ratedVolts: numberIn('voltage rating', /V(dc)?$/i),
    ratedWatts: power && /mW$/.test(cell('power rating')!) ? power / 1000 : power,
    price: numberIn('price', /[€$£]/g),
    place: cell('place'),
    name: cell('name'),
    note: cell('note'),
  };
  const words = stockWords(
    Object.fromEntries(Object.entries(named).filter(([, v]) => v !== undefined)),
    mark,
  );
  const figures = columns.flatMap((column, i) => {
    const label = figureNamed(column);
    return label !== undefined && cells[i] ? [{ label, text: cells[i] }] : [];
  });
  return figures.length === 0 ? words : withFigures(words, figures, mark);
}

/** A device with figures of its own; those that are not told are as the offered one of its name has them. */
function withFigures(
  words: StockWords,
  figures: readonly { label: string; text: string }[],
  mark: DecimalMark,
): StockWords {
  const kind = partKindOf(words.kind);
  const told = figures.map(({ label, text }) => {
    const figure = figuresOf(kind).find((f) => f.label === label);
    if (!figure)
      throw new ReedError(
        'document',
        `There is no ${label.toLowerCase()} of ${withArticle(kind)}: leave ${quoted(text)} out.`,
      );
    return { figure, told: readFigure(figure, text, mark) };
  });
  return { ...words, model: withToldFigures(kind, deviceCalled(kind, words.name)?.model, told) };
}
