import Papa from 'papaparse';
import { messageOf, ReedError } from '@/core/errors';
import { parseQuantity, type DecimalMark } from '@/core/quantity/parse';
import { quantityOfPart, valuesOf } from '@/core/sheet/stage';
import type { Bank, Channel } from '@/core/sheet/bank-schema';
import type { Way } from '@/core/sheet/schema';
import { quoted } from '@/core/text';
import { knownKey } from './bank';

/** What a column of a table of known values says. */
type Column =
  | { is: 'channel' }
  | { is: 'centre' }
  | { is: 'known' | 'marked' | 'trimmer'; key: string; stage: number; part: string };

/** What a table says of one channel; an empty cell leaves a part to be worked out. */
export interface KnownRow {
  line: number;
  /** The channel’s place in the bank. */
  channel: number;
  known: Record<string, number | null>;
  marked: Record<string, { value?: number; trimmer?: number }>;
}

export interface KnownTable {
  rows: KnownRow[];
  /** Parts that the table speaks of. */
  keys: string[];
  bad: { line: number; why: string }[];
}

/** A centre is that of a channel within this part of it. */
const SAME_CENTRE = 0.03;
export const MOST_KNOWN_LINES = 500;

/**
 * Values of a partly known board, as pasted from a spreadsheet: a row for each channel, named by its
 * number or its centre, and a column for each part, named by stage and part (“1/R2”, or “R2” where
 * channels have one stage). A column “1/R2 marked” says what the drawing shows of a part that is to be
 * worked out, “1/R2 trimmer” how large its trimmer is.
 *
 * @throws ReedError `document` where no column can be understood
 */
export function readKnownTable(
  text: string,
  bank: Bank,
  ways: readonly Way[],
  mark: DecimalMark = 'point',
): KnownTable {
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  if (data.length < 2)
    throw new ReedError(
      'document',
      'A table of known values has a heading and a line for each channel: “channel, 1/C1, 1/R1” and below it “1, 22n, 15k”.',
    );
  if (data.length > MOST_KNOWN_LINES)
    throw new ReedError('document', `The table has over ${MOST_KNOWN_LINES} lines.`);
  const [heading, ...lines] = data;
  const bad: KnownTable['bad'] = [];
  const columns = heading.map((cell) => {
    try {
      return columnOf(cell, ways);
    } catch (error) {
      bad.push({ line: 1, why: messageOf(error) });
      return undefined;
    }
  });
  const keys = columns.flatMap((c) => (c && 'key' in c ? [c.key] : []));
  if (!columns.some((c) => c?.is === 'channel' || c?.is === 'centre') || keys.length === 0)
    throw new ReedError(
      'document',
      `The heading needs a column “channel” or “centre”, and at least one part like “1/R1”; it says ${quoted(heading.join(', '))}.`,
    );
  const rows: KnownRow[] = [];
  lines.forEach((cells, n) => {
    const line = n + 2;
    try {
      const row = rowOf(line, cells, columns, bank, ways, mark);
      if (rows.some((r) => r.channel === row.channel))
        throw new ReedError('document', `channel ${row.channel + 1} was given before`);
      rows.push(row);
    } catch (error) {
      bad.push({ line, why: messageOf(error) });
    }
  });
  return { rows, keys: [...new Set(keys)], bad };
}

function columnOf(cell: string, ways: readonly Way[]): Column {
  const text = cell.trim();
  if (/^(channel|number|no|#)$/i.test(text)) return { is: 'channel' };
  if (/^(cent(re|er)|f0|frequency|hz)( hz)?$/i.test(text)) return { is: 'centre' };
  const found = /^(?:(?:stage )?(\d+)\s*[/ ]\s*)?([a-z]+\d*)(?:\s+(known|marked|trimmer))?$/i.exec(
    text,
  );
  if (!found) throw new ReedError('document', `no part is called ${quoted(text)}`);
  const [, number = '1', name, is = 'known'] = found;
  const stage = Number(number) - 1;
  const part = ways
    .flatMap((w) => Object.keys(w.stages[stage] ? valuesOf(w.stages[stage]) : {}))
    .find((id) => id.toLowerCase() === name.toLowerCase());
  if (part === undefined)
    throw new ReedError('document', `stage ${number} has no part ${quoted(name)}`);
  return {
    is: is.toLowerCase() as 'known' | 'marked' | 'trimmer',
    key: knownKey(stage, part),
    stage,
    part,
  };
}

function rowOf(
  line: number,
  cells: readonly string[],
  columns: readonly (Column | undefined)[],
  bank: Bank,
  ways: readonly Way[],
  mark: DecimalMark,
): KnownRow {
  const row: KnownRow = { line, channel: -1, known: {}, marked: {} };
  columns.forEach((column, i) => {
    if (!column || 'key' in column) return;
    const cell = (cells[i] ?? '').trim();
    if (cell === '') return;
    row.channel =
      column.is === 'channel'
        ? numbered(cell, bank)
        : centred(parseQuantity(cell, 'hertz', mark), bank);
  });
  if (row.channel < 0) throw new ReedError('document', 'it does not say which channel it is of');
  columns.forEach((column, i) => {
    if (!column || !('key' in column)) return;
    const stage = ways[row.channel].stages[column.stage];
    const kind = stage && quantityOfPart(stage, column.part)?.quantity;
    const cell = (cells[i] ?? '').trim();
    if (!kind) {
      if (cell === '') return;
      throw new ReedError('document', `channel ${row.channel + 1} has no ${column.key}`);
    }
    const value = cell === '' ? null : parseQuantity(cell, kind, mark);
    if (value !== null && !(value > 0))
      throw new ReedError('document', `${column.key} must be greater than zero`);
    if (column.is === 'known') row.known[column.key] = value;
    else if (value !== null)
      row.marked[column.key] = {
        ...row.marked[column.key],
        [column.is === 'marked' ? 'value' : 'trimmer']: value,
      };
  });
  return row;
}

function numbered(cell: string, { channels }: Bank): number {
  const number = Number(cell.replace(/^channel\s*/i, ''));
  if (!Number.isInteger(number) || number < 1 || number > channels.length)
    throw new ReedError('document', `there is no channel ${quoted(cell)}`);
  return number - 1;
}

function centred(hz: number, { channels }: Bank): number {
  const found = channels.findIndex((c) => Math.abs(c.centreHz / hz - 1) < SAME_CENTRE);
  if (found < 0) throw new ReedError('document', `no channel has its centre at ${hz} Hz`);
  return found;
}

/** The bank with what a table says of it: parts that it does not speak of stay as they are. */
export function withKnownTable(bank: Bank, { rows }: Pick<KnownTable, 'rows'>): Bank {
  const channels = bank.channels.map((channel, i): Channel => {
    const row = rows.find((r) => r.channel === i);
    if (!row) return channel;
    const known = { ...channel.known };
    for (const [key, value] of Object.entries(row.known)) {
      if (value === null) delete known[key];
      else known[key] = value;
    }
    const marked = { ...channel.marked };
    for (const [key, { value, trimmer }] of Object.entries(row.marked)) {
      const fixed = value ?? marked[key]?.value;
      if (fixed !== undefined)
        marked[key] = { value: fixed, ...(trimmer === undefined ? {} : { trimmer }) };
    }
    return { ...channel, known, ...(Object.keys(marked).length > 0 ? { marked } : {}) };
  });
  return { ...bank, channels };
}
