import { changeWords, type Change } from '@/core/differences/change';
import type { BookEntry, EntryFigure } from './entry';
import { isTakenBack } from './taken-back';

/** Changes and figures that a line tells before it is opened. */
const TOLD = { changes: 3, figures: 2 };

/** A line in one sentence: “C2 22n → 2 × 10n, R1 4k7 → 5k1 and 3 more; edge 3.41 kHz → 3.38 kHz”. */
export function entryWords(entry: BookEntry): string {
  const { kind, changes, more = 0, note } = entry;
  if (kind === 'note') return firstLine(note) || 'A note';
  if (kind === 'lesson')
    return `Learned: ${[entry.name, ...changes.map((c) => `${c.what}: ${c.after}`)].join('; ')}`;
  if (isTakenBack(entry)) {
    const tried = entry.steps.flatMap((s) => s.changes);
    return `Tried and taken back: ${listed(tried, 0)}`;
  }
  if (changes.length === 0) return firstLine(note) || 'Tried; in the end nothing changed';
  const by = [...new Set(entry.steps.flatMap((s) => (s.by && !s.undone ? [s.by] : [])))];
  const figures = movedMost(entry).map(figureWords);
  return [
    `${by.length > 0 ? `${by.join(', ')}: ` : ''}${listed(changes, more)}`,
    ...(figures.length > 0 ? [figures.join(', ')] : []),
  ].join('; ');
}

function listed(changes: readonly Change[], more: number): string {
  const told = changes.slice(0, TOLD.changes).map(changeWords);
  const rest = changes.length - told.length + more;
  return told.join(', ') + (rest > 0 ? ` and ${rest} more` : '');
}

const firstLine = (text: string): string => text.trim().split('\n')[0];

export const figureWords = ({ name, words: { before, after } }: EntryFigure): string =>
  `${name} ${before} → ${after}`;

/** The readings that moved, those that moved most first. */
export function movedFigures({ figures }: Pick<BookEntry, 'figures'>): EntryFigure[] {
  const by = ({ before, after }: EntryFigure) =>
    before === null || after === null
      ? Infinity
      : Math.abs(after - before) / Math.max(Math.abs(before), Math.abs(after), 1);
  return (figures?.list ?? [])
    .filter(({ words }) => words.before !== words.after)
    .sort((a, b) => by(b) - by(a));
}

const movedMost = (entry: BookEntry) =>
  movedFigures(entry)
    .filter((f) => f.before !== null && f.after !== null)
    .slice(0, TOLD.figures);

/** Everything that a line may be looked for by, in small letters. */
export function entrySearchText(entry: BookEntry): string {
  const { name, changes, steps, note, kind } = entry;
  const told = new Set([...changes, ...steps.flatMap((s) => s.changes)].map(changeWords));
  return [kind, name, note, ...steps.map((s) => s.by ?? ''), ...told].join('\n').toLowerCase();
}
