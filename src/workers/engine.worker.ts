import * as Comlink from 'comlink';
import { ReedError, messageOf, type ReedErrorCode } from '@/core/errors';
import {
  partVariation,
  SheetEvaluator,
  type Evaluation,
  type LayerTrace,
} from '@/core/sheet/evaluate';
import { lensPicture, type LensPicture, type LensRequest } from '@/core/lenses/lens';
import type { Sheet } from '@/core/sheet/schema';
import type { Candidate } from '@/core/weigh/candidates';
import { weighOne, type WeighOptions, type WeighRefusal, type WeighRow } from '@/core/weigh/weigh';

/** An evaluation whose layers leave out the traces that the caller said it has. */
export type EvaluationReply = Omit<Evaluation, 'layers'> & {
  layers: (Omit<Evaluation['layers'][number], 'trace'> & { trace: LayerTrace | null })[];
};

export type Reply<T> =
  { value: T } | { failure: { code: ReedErrorCode | 'defect'; message: string } };

/**
 * The engine behind its worker. Every call carries a number; a call named in `cancel` before its
 * turn comes is answered with "stopped" and costs nothing.
 */
export class EngineWorker {
  private readonly evaluators = new Map<string, SheetEvaluator>();
  private readonly cancelled = new Set<number>();

  cancel(call: number): void {
    this.cancelled.add(call);
  }

  evaluate(call: number, sheet: Sheet, known: readonly string[]): Promise<Reply<EvaluationReply>> {
    return this.answer(call, () => {
      const evaluation = this.evaluatorFor(sheet.id).evaluate(sheet);
      const layers = evaluation.layers.map((layer) => ({
        ...layer,
        trace: known.includes(layer.key) ? null : layer.trace,
      }));
      return { ...evaluation, layers };
    });
  }

  partVariation(
    call: number,
    sheet: Sheet,
    stageId: string,
    part: string,
    factors: number[],
  ): Promise<Reply<LayerTrace[]>> {
    return this.answer(call, () => partVariation(sheet, stageId, part, factors));
  }

  lens(call: number, sheet: Sheet, request: LensRequest): Promise<Reply<LensPicture>> {
    return this.answer(call, () => lensPicture(sheet, request));
  }

  /**
   * Candidates one after the other; each row is handed over as it is ready. Between two of them a
   * cancellation can arrive.
   */
  async weigh(
    call: number,
    candidates: readonly Candidate[],
    options: WeighOptions,
    onRow: (row: WeighRow | WeighRefusal) => void,
  ): Promise<Reply<number>> {
    let done = 0;
    for (const candidate of candidates) {
      const reply = await this.answer(call, () => weighOne(candidate, options), false);
      if ('failure' in reply) {
        this.cancelled.delete(call);
        return reply;
      }
      onRow(reply.value);
      done++;
    }
    return { value: done };
  }

  private evaluatorFor(id: string): SheetEvaluator {
    let evaluator = this.evaluators.get(id);
    if (!evaluator) {
      if (this.evaluators.size > 40) this.evaluators.clear();
      this.evaluators.set(id, (evaluator = new SheetEvaluator()));
    }
    return evaluator;
  }

  private async answer<T>(call: number, compute: () => T, last = true): Promise<Reply<T>> {
    // Let cancellations that are already in the mail arrive first.
    await nextTurn();
    try {
      if (this.cancelled.has(call)) throw new ReedError('stopped', 'Stopped on request.');
      return { value: compute() };
    } catch (error) {
      const code = error instanceof ReedError ? error.code : 'defect';
      return { failure: { code, message: messageOf(error) } };
    } finally {
      if (last) this.cancelled.delete(call);
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

Comlink.expose(new EngineWorker());
