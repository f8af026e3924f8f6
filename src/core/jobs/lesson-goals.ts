import { lessonOf, type Goal } from '@/core/lessons';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** How far a sheet is with a lesson, beside the sheet as that begins. */
export const lessonGoals: Job<{ lesson: string; sheet: Sheet }, never, Goal[]> = ({
  lesson: id,
  sheet,
}) => {
  const lesson = lessonOf(id);
  return lesson.goals(sheet, lesson.begin(sheet.id, sheet.createdAt));
};
