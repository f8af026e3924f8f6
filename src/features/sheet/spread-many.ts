import type { SpreadPortion, SpreadResult } from '@/core/spread/spread';
import { PortionSum } from '@/core/spread/portions';
import type { JobInput } from '@/core/jobs';
import { engine } from '@/workers/engine';

/** The first portion sets the steps in which the others count. */
const FIRST_PORTION = 1024;
/** Small enough that all workers end at about the same time. */
const PORTION = 8000;

export interface ManyOptions {
  signal: AbortSignal;
  /** Told how many boards are counted. */
  progress: (boards: number) => void;
}

/**
 * A great many boards of a sheet, counted by all workers together.
 *
 * @param known what fewer of them came to
 * @throws ReedError `stopped` on request, or as solving the sheet
 */
export async function countMany(
  input: Omit<JobInput<'spreadPortion'>, 'first' | 'frames'>,
  known: SpreadResult,
  { signal, progress }: ManyOptions,
): Promise<SpreadResult> {
  const { boards } = input;
  const under = new Map<number, number>();
  const run = (first: number, count: number, frames?: PortionSum['frames']) => {
    const portion = { ...input, first, boards: count, ...(frames ? { frames } : {}) };
    return engine().run('spreadPortion', portion, {
      signal,
      progress: (done) => {
        under.set(first, done);
        progress(
          Math.min(
            boards,
            [...under.values()].reduce((a, b) => a + b, 0),
          ),
        );
      },
    });
  };
  let next = Math.min(boards, FIRST_PORTION);
  const sum = new PortionSum(known, await run(0, next));
  const { frames } = sum;
  const lane = async () => {
    while (next < boards) {
      const first = next;
      next = Math.min(boards, first + PORTION);
      const counted: SpreadPortion = await run(first, next - first, frames);
      sum.add(counted);
    }
  };
  await Promise.all(Array.from({ length: engine().jobWorkers }, lane));
  return sum.result();
}
