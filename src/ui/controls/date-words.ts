// A format takes milliseconds to make, and dozens of dates stand on a shelf.
const FORMATS = { medium: make('medium'), short: make('short') };

function make(dateStyle: 'medium' | 'short'): () => Intl.DateTimeFormat {
  let format: Intl.DateTimeFormat | undefined;
  return () => (format ??= new Intl.DateTimeFormat([], { dateStyle, timeStyle: 'short' }));
}

/** A stored date and time in the reader's own way of writing them. */
export function dateWords(date: string, style: keyof typeof FORMATS): string {
  const time = Date.parse(date);
  return Number.isNaN(time) ? 'at a time that is not legible' : FORMATS[style]().format(time);
}

let days: Intl.DateTimeFormat | undefined;

/** A day, “2026-12-03”, in the reader's own way of writing it. */
export function dayWords(day: string): string {
  const time = Date.parse(`${day}T12:00:00Z`);
  days ??= new Intl.DateTimeFormat([], { day: 'numeric', month: 'short', timeZone: 'UTC' });
  return Number.isNaN(time) ? 'on a day that is not legible' : days.format(time);
}
