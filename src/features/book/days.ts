import type { Line } from '@/store/book-lines';

/** A row of the list: a day, or a line of it. */
export type Row = { is: 'day'; day: string } | { is: 'line'; line: Line };

/** Lines under the days that they were written on, in the reader’s own time. */
export function rowsOf(lines: readonly Line[]): Row[] {
  const rows: Row[] = [];
  let last = '';
  for (const line of lines) {
    const day = dayOf(line.at);
    if (day !== last) rows.push({ is: 'day', day });
    last = day;
    rows.push({ is: 'line', line });
  }
  return rows;
}

// A format takes milliseconds to make.
const DAY = new Intl.DateTimeFormat([], { dateStyle: 'full' });
const TIME = new Intl.DateTimeFormat([], { timeStyle: 'short' });
const days = new Map<string, string>();

/** The day of a date, written out; the same text is made once. */
function dayOf(at: string): string {
  const time = new Date(at);
  if (Number.isNaN(time.getTime())) return 'At a time that is not legible';
  const key = time.toDateString();
  let found = days.get(key);
  if (found === undefined) days.set(key, (found = DAY.format(time)));
  return found;
}

/** “19:42”. */
export function timeWords(at: string): string {
  const time = Date.parse(at);
  return Number.isNaN(time) ? '' : TIME.format(time);
}
