import type { Pause } from '@/core/lenses/layers';

/** What a job has besides its input. */
export interface JobContext<Step> {
  /** Awaited between slices: lets others in, and throws `stopped` when the work is no longer wanted. */
  pause: Pause;
  /** Hand over a part of the result as it is ready. Always the same parts in the same order. */
  progress: (step: Step) => void;
}

/**
 * Work that takes longer than a picture can wait: done in slices of less than a tenth of a second,
 * the same for the same input (what is drawn by lot is drawn from a seed), and stoppable between
 * slices.
 */
export type Job<Input, Step, Result> = (
  input: Input,
  context: JobContext<Step>,
) => Result | Promise<Result>;
