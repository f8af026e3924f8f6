import { ReedError, messageOf, type ReedErrorCode } from '@/core/errors';
import { cardCurve, type SmallCurve } from '@/core/bank/card-curve';
import { controlVariation, partVariation } from '@/core/sheet/variation';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import type { LayerTrace } from '@/core/sheet/solved-way';
import type { Pause } from '@/core/lenses/layers';
import type { packSheet } from './evaluation-parcels';
import { packEvaluation, unpackSheet } from './evaluation-parcels';
import { Packer, Unpacker } from './parcel';
import { lensPicture, type LensPicture, type LensRequest } from '@/core/lenses/lens';
import type { Sheet } from '@/core/sheet/schema';
import type { Candidate } from '@/core/weigh/candidates';
import { weighOne, type WeighOptions, type WeighRefusal, type WeighRow } from '@/core/weigh/weigh';

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

  partVariation(
    call: number,
    sheet: Sheet,
    stageId: string,
    part: string,
    factors: number[],
  ): Promise<Reply<LayerTrace[]>> {
    return this.answer(call, () => partVariation(sheet, stageId, part, factors));
  }

  controlVariation(
    call: number,
    sheet: Sheet,
    control: string,
    places: number[],
  ): Promise<Reply<LayerTrace[]>> {
    return this.answer(call, () => controlVariation(sheet, control, places));
  }

  lens(call: number, sheet: Sheet, request: LensRequest): Promise<Reply<LensPicture>> {
    return this.answer(call, (pause) => lensPicture(sheet, request, pause));
  }

  cardCurve(call: number, sheet: Sheet): Promise<Reply<SmallCurve>> {
    return this.answer(call, () => cardCurve(sheet));
  }

  /** Candidates one after the other; each row is handed over as it is ready. */
  weigh(
    call: number,
    candidates: readonly Candidate[],
    options: WeighOptions,
    onRow: (row: WeighRow | WeighRefusal) => void,
  ): Promise<Reply<number>> {
    return this.answer(call, async (pause) => {
      for (const candidate of candidates) {
        onRow(weighOne(candidate, options));
        await pause();
      }
      return candidates.length;
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
