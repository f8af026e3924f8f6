import { buildSteps as steps, type StepsInput } from '@/core/bench/steps/build-steps';
import type { BenchStep } from '@/core/bench/steps/step';
import type { Job } from './job';

/** How a board is built and tried, with what should be read. */
export const buildSteps: Job<StepsInput, never, BenchStep[]> = (input, { pause }) =>
  steps(input, pause);
