import { ReedError, messageOf, type ReedErrorCode } from '@/core/errors';
import { crossoverPicture, type CrossoverPicture } from '@/core/crossover/picture';
import { JOBS, type JobInput, type JobName, type JobResult, type JobStep } from '@/core/jobs';
import type { Job } from '@/core/jobs/job';
import type { Pause } from '@/core/lenses/layers';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { packEvaluation, unpackSheet, type packSheet } from './evaluation-parcels';
import { Packer, Unpacker } from './parcel';

/** What a job came to, and in how many parts it was handed over. */
export interface JobReply<N extends JobName> {
  result: JobResult<N>;
  steps: number;
}

export type Reply<T> =
  { value: T } | { failure: { code: ReedErrorCode | 'defect'; message: string } };

/**
 * The engine behind its worker. Every call carries a number, which is acknowledged before the work
 * begins. A call named in `cancel` is answered with "stopped" at its next pause, or before its turn.
 */
export class EngineWorker {
  private readonly evaluators = new Map<string, SheetEvaluator>();
  private readonly cancelled = new Set<number>();
  private readonly unpacker = new Unpacker();
  private readonly packer = new Packer();

  constructor(private readonly acknowledge: (call: number) => void) {}

  /** Answers as soon as nothing else is being worked on: a sign of life. */
  ping(call: number): Promise<Reply<true>> {
    return this.answer(call, () => true);
  }

  cancel(call: number): void {
    this.cancelled.add(call);
  }

  /** Takes and gives parcels: nothing that is at hand on both sides is sent again. */
  evaluate(
    call: number,
    parcel: ReturnType<typeof packSheet>,
  ): Promise<Reply<ReturnType<typeof packEvaluation>>> {
    // Unpacked as it arrives, even if it is stopped before its turn: the next one builds on it.
    const sheet = unpackSheet(this.unpacker, parcel);
    return this.answer(call, () =>
      packEvaluation(this.packer, this.evaluatorFor(sheet.id).evaluate(sheet)),
    );
  }

  /** Everything that a crossover's screen shows; takes a parcel as `evaluate` does. */
  crossover(call: number, parcel: ReturnType<typeof packSheet>): Promise<Reply<CrossoverPicture>> {
    const sheet = unpackSheet(this.unpacker, parcel);
    return this.answer(call, () => crossoverPicture(sheet));
  }

  /**
   * Run a job of the table.
   *
   * @param onStep told every part of the result as it is ready
   */
  run<N extends JobName>(
    call: number,
    name: N,
    input: JobInput<N>,
    onStep?: (step: JobStep<N>) => void,
  ): Promise<Reply<JobReply<N>>> {
    return this.answer(call, async (pause) => {
      let steps = 0;
      const progress = (step: JobStep<N>) => {
        steps++;
        onStep?.(step);
      };
      const job = JOBS[name] as unknown as Job<JobInput<N>, JobStep<N>, JobResult<N>>;
      return { result: await job(input, { pause, progress }), steps };
    });
  }

  private evaluatorFor(id: string): SheetEvaluator {
    let evaluator = this.evaluators.get(id);
    if (!evaluator) {
      if (this.evaluators.size > 8) this.evaluators.clear();
      this.evaluators.set(id, (evaluator = new SheetEvaluator()));
    }
    return evaluator;
  }

  private async answer<T>(
    call: number,
    compute: (pause: Pause) => T | Promise<T>,
  ): Promise<Reply<T>> {
    // Let messages that are already in the mail arrive: a cancellation, or a call that is quicker.
    const pause = async () => {
      await nextTurn();
      if (this.cancelled.has(call)) throw new ReedError('stopped', 'Stopped on request.');
    };
    try {
      this.acknowledge(call);
      await pause();
      return { value: await compute(pause) };
    } catch (error) {
      const code = error instanceof ReedError ? error.code : 'defect';
      return { failure: { code, message: messageOf(error) } };
    } finally {
      this.cancelled.delete(call);
    }
  }
}

/** The end of the present turn of the event loop; unlike a timer it is not slowed down. */
function nextTurn(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
}
