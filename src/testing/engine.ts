import { crossoverPicture } from '@/core/crossover/picture';
import { ReedError } from '@/core/errors';
import { JOBS, type JobName } from '@/core/jobs';
import type { Job } from '@/core/jobs/job';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';

/*
 * The engine in the thread of a test: the same jobs and the same evaluator, without workers between.
 */

const evaluator = new SheetEvaluator();

export const engineHere = {
  jobWorkers: 2,
  evaluate: (sheet: Sheet) => Promise.resolve().then(() => evaluator.evaluate(sheet)),
  crossover: (sheet: Sheet) => Promise.resolve().then(() => crossoverPicture(sheet)),
  async run(
    name: JobName,
    input: unknown,
    options: { signal?: AbortSignal; progress?: (step: unknown) => void } = {},
  ): Promise<unknown> {
    const pause = () => {
      if (options.signal?.aborted)
        return Promise.reject(new ReedError('stopped', 'Stopped on request.'));
      return new Promise<void>((resolve) => setTimeout(resolve, 0));
    };
    await pause();
    const job = JOBS[name] as unknown as Job<unknown, unknown, unknown>;
    return job(input, { pause, progress: options.progress ?? (() => undefined) });
  },
  onTrouble: () => () => undefined,
};
