import type { Sheet } from '@/core/sheet/schema';

/** Where a lesson stands on its shelf. */
export const CHAPTERS = {
  networks: 'Resistors and capacitors',
  opAmps: 'Op-amps',
  loops: 'Loops',
  speakers: 'Loudspeakers',
  voices: 'Voices',
} as const;
export type Chapter = keyof typeof CHAPTERS;

/** Something that the sheet itself answers: what is asked of it, what it is, and whether that will do. */
export interface Goal {
  what: string;
  is: string;
  met: boolean;
}

/** A question on a live sheet: something to turn, what to see, and goals that the sheet answers. */
export interface Lesson {
  id: string;
  chapter: Chapter;
  title: string;
  question: string;
  /** What is to be turned, and how. */
  turn: string;
  /** What to look at while it is. */
  see: string;
  /** What it shows: told once the goals are met. */
  because: string;
  /** The topology whose words, formulas and blocks go with it. */
  topology?: string;
  /**
   * The sheet that it begins with.
   *
   * @param at when it is made, ISO
   */
  begin: (id: string, at: string) => Sheet;
  /**
   * How far a sheet is with it.
   *
   * @param begun the sheet as it was begun
   */
  goals: (sheet: Sheet, begun: Sheet) => Goal[];
}
