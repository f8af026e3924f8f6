import { ReedError } from '@/core/errors';
import { CHAPTERS, type Chapter, type Lesson } from './lesson';
import {
  multipleFeedback,
  positiveFeedback,
  stateVariableLoop,
  twoIntegratorLoop,
  unityStage,
} from './loops';
import { jointCost, orders, rcEdge, rcLoad } from './networks';
import { arrangements, harmonics, matched, slowOpAmp } from './op-amps';
import { turnedRound } from './speakers';
import { singing } from './voices';

export { CHAPTERS } from './lesson';
export type { Chapter, Goal, Lesson } from './lesson';

/** Every lesson, in the order in which they are best taken: one line each. */
export const LESSONS: readonly Lesson[] = [
  rcEdge,
  rcLoad,
  jointCost,
  orders,
  unityStage,
  multipleFeedback,
  slowOpAmp,
  arrangements,
  harmonics,
  matched,
  positiveFeedback,
  stateVariableLoop,
  twoIntegratorLoop,
  turnedRound,
  singing,
];

export const lessonsOf = (chapter: Chapter): Lesson[] =>
  LESSONS.filter((l) => l.chapter === chapter);

export const CHAPTER_NAMES = Object.entries(CHAPTERS) as [Chapter, string][];

/** @throws ReedError `range` where there is none of that name */
export function lessonOf(id: string): Lesson {
  const lesson = LESSONS.find((l) => l.id === id);
  if (!lesson) throw new ReedError('range', `There is no lesson “${id}”.`);
  return lesson;
}
