import * as Comlink from 'comlink';
import type { SmallCurve } from '@/core/bank/card-curve';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { LayerTrace } from '@/core/sheet/solved-way';
import type { LensPictures, LensRequest } from '@/core/lenses/lens';
import type { Sheet } from '@/core/sheet/schema';
import type { Candidate } from '@/core/weigh/candidates';
import type { WeighOptions, WeighRefusal, WeighRow } from '@/core/weigh/weigh';
import type { EngineWorker, Reply } from './engine-worker';
import { packSheet, unpackEvaluation } from './evaluation-parcels';
import { Packer, Unpacker } from './parcel';
import { WorkerHost, type Hosted } from './worker-host';

export interface CallOptions {
  signal?: AbortSignal;
}

type Remote = Comlink.Remote<EngineWorker>;

function startWorker(): Hosted<Remote> {
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), {
    type: 'module',
    name: 'engine',
  });
  return {
    remote: Comlink.wrap<EngineWorker>(worker),
    terminate: () => worker.terminate(),
    listen: (hear) => {
      worker.addEventListener('message', (event) => hear(event.data));
      worker.addEventListener('error', () => hear(null));
      worker.addEventListener('messageerror', () => hear(null));
    },
  };
}

/**
 * The engine as the interface sees it: typed, asynchronous, every call stoppable. Edits have a
 * worker to themselves, so that none waits behind a lens, the weigh-up or the shelf's small curves.
 */
export class Engine {
  private readonly edits: WorkerHost<Remote>;
  private jobsHost: WorkerHost<Remote> | undefined;
  /** By worker: what it was sent and what it sent. */
  private readonly parcels = new WeakMap<Remote, { packer: Packer; unpacker: Unpacker }>();
  private readonly listeners = new Set<() => void>();

  constructor(private readonly start: () => Hosted<Remote> = startWorker) {
    this.edits = this.host();
  }

  /** Told whenever a worker had died and was started again. */
  onTrouble(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Everything a sheet shows. Results that stand on nothing that changed are the very same objects. */
  evaluate(sheet: Sheet, options: CallOptions = {}): Promise<Evaluation> {
    return this.edits.call(async (remote, call) => {
      const { packer, unpacker } = this.parcelsOf(remote);
      const reply = await remote.evaluate(call, packSheet(packer, sheet));
      // Unpacked even if nobody waits for it any more: the next one builds on it.
      return 'failure' in reply ? reply : { value: unpackEvaluation(unpacker, reply.value) };
    }, options.signal);
  }

  private parcelsOf(remote: Remote) {
    let own = this.parcels.get(remote);
    if (!own) this.parcels.set(remote, (own = { packer: new Packer(), unpacker: new Unpacker() }));
    return own;
  }

  /** The built curve with one part multiplied by each factor. */
  partVariation(
    sheet: Sheet,
    stageId: string,
    part: string,
    factors: number[],
    options: CallOptions = {},
  ): Promise<LayerTrace[]> {
    return this.job(
      (remote, call) => remote.partVariation(call, sheet, stageId, part, factors),
      options,
    );
  }

  /** The built curve with a control at each place of its travel. */
  controlVariation(
    sheet: Sheet,
    control: string,
    places: number[],
    options: CallOptions = {},
  ): Promise<LayerTrace[]> {
    return this.job(
      (remote, call) => remote.controlVariation(call, sheet, control, places),
      options,
    );
  }

  /** What one of the lenses beside level and phase shows. */
  lens<R extends LensRequest>(
    sheet: Sheet,
    request: R,
    options: CallOptions = {},
  ): Promise<LensPictures[R['lens']]> {
    return this.job((remote, call) => remote.lens(call, sheet, request), options) as Promise<
      LensPictures[R['lens']]
    >;
  }

  /** The small curve by which the shelf shows a sheet. */
  cardCurve(sheet: Sheet, options: CallOptions = {}): Promise<SmallCurve> {
    return this.job((remote, call) => remote.cardCurve(call, sheet), options);
  }

  /** Weigh candidates one by one; rows arrive as they are ready. Resolves to their number. */
  async weigh(
    candidates: readonly Candidate[],
    weighing: WeighOptions,
    onRow: (row: WeighRow | WeighRefusal) => void,
    options: CallOptions = {},
  ): Promise<number> {
    // After a restart the rows come again from the first: each is handed over once.
    let before = 0;
    let arrived = () => undefined as void;
    const total = await this.job((remote, call) => {
      let rows = 0;
      const handOver = Comlink.proxy((row: WeighRow | WeighRefusal) => {
        if (options.signal?.aborted || ++rows <= before) return;
        before = rows;
        onRow(row);
        arrived();
      });
      return remote.weigh(call, candidates, weighing, handOver);
    }, options);
    // Rows come by a way of their own: the last may arrive after the answer that all are done.
    while (before < total)
      await new Promise<void>((resolve) => {
        arrived = resolve;
        setTimeout(resolve, 50);
      });
    return total;
  }

  /** Have the second worker ready before it is needed. */
  warm(): void {
    this.jobs();
  }

  /** End the workers; for whoever made an engine of his own. */
  dispose(): void {
    this.edits.dispose();
    this.jobsHost?.dispose();
  }

  private job<T>(
    send: (remote: Remote, call: number) => Promise<Reply<T>>,
    { signal }: CallOptions,
  ): Promise<T> {
    return this.jobs().call(send, signal);
  }

  private jobs(): WorkerHost<Remote> {
    return (this.jobsHost ??= this.host());
  }

  private host(): WorkerHost<Remote> {
    return new WorkerHost<Remote>(this.start, {
      onTrouble: () => this.listeners.forEach((tell) => tell()),
    });
  }
}

let shared: Engine | undefined;

/** The one engine of this page. */
export function engine(): Engine {
  shared ??= new Engine();
  return shared;
}
