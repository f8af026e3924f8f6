import { bridge } from './bridge';
import { buildSteps } from './build-steps';
import { playBoard } from './play-board';
import { cardCurve } from './card-curve';
import { compareTake } from './compare-take';
import { differences } from './differences';
import { fit } from './fit';
import { foresee } from './foresee';
import type { JobContext } from './job';
import { lens } from './lens';
import { lensBands } from './lens-bands';
import { lessonGoals } from './lesson-goals';
import { matching } from './matching';
import { mendBoard } from './mend-board';
import { partsList } from './parts-list';
import { practiceReasoning } from './practice-reasoning';
import { readBoards } from './read-boards';
import { renderProgram } from './render-program';
import { sweepTake } from './sweep-take';
import { solvePart } from './solve-part';
import { spread } from './spread';
import { spreadPortion } from './spread-portion';
import { strip } from './strip';
import { stretch } from './stretch';
import { tuneCrossover } from './tune-crossover';
import { tuneSchools } from './tune-schools';
import { variation } from './variation';
import { weigh } from './weigh';
import { writeReport } from './write-report';

/** Everything that is worked out beside the edits: one file and one line each. */
export const JOBS = {
  variation,
  lens,
  lensBands,
  lessonGoals,
  bridge,
  buildSteps,
  cardCurve,
  compareTake,
  differences,
  weigh,
  fit,
  foresee,
  spread,
  matching,
  mendBoard,
  partsList,
  playBoard,
  practiceReasoning,
  readBoards,
  renderProgram,
  sweepTake,
  solvePart,
  spreadPortion,
  stretch,
  strip,
  tuneCrossover,
  tuneSchools,
  writeReport,
};

type Jobs = typeof JOBS;
export type JobName = keyof Jobs;
export type JobInput<N extends JobName> = Parameters<Jobs[N]>[0];
export type JobStep<N extends JobName> =
  Parameters<Jobs[N]>[1] extends JobContext<infer Step> ? Step : never;
export type JobResult<N extends JobName> = Awaited<ReturnType<Jobs[N]>>;
