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
