import * as Comlink from 'comlink';
import { ReedError, messageOf, type ReedErrorCode } from '@/core/errors';
import {
  partVariation,
  SheetEvaluator,
  type Evaluation,
  type LayerTrace,
} from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';

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

  private evaluatorFor(id: string): SheetEvaluator {
    let evaluator = this.evaluators.get(id);
    if (!evaluator) {
      if (this.evaluators.size > 40) this.evaluators.clear();
      this.evaluators.set(id, (evaluator = new SheetEvaluator()));
    }
    return evaluator;
  }

  private async answer<T>(call: number, compute: () => T): Promise<Reply<T>> {
    // Let cancellations that are already in the mail arrive first.
    await nextTurn();
    try {
      if (this.cancelled.has(call)) throw new ReedError('stopped', 'Stopped on request.');
      return { value: compute() };
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

Comlink.expose(new EngineWorker());
