import * as Comlink from 'comlink';
import { ReedError } from '@/core/errors';
import type { Evaluation, LayerTrace } from '@/core/sheet/evaluate';
import type { LensPictures, LensRequest } from '@/core/lenses/lens';
import type { Sheet } from '@/core/sheet/schema';
import type { Candidate } from '@/core/weigh/candidates';
import type { WeighOptions, WeighRefusal, WeighRow } from '@/core/weigh/weigh';
import type { EngineWorker, Reply } from './engine.worker';

export interface CallOptions {
  signal?: AbortSignal;
}

/** The engine as the interface sees it: typed, asynchronous, every call stoppable. */
export class Engine {
  private readonly remote: Comlink.Remote<EngineWorker>;
  private readonly traces = new Map<string, LayerTrace>();
  private calls = 0;

  constructor() {
    const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), {
      type: 'module',
      name: 'engine',
    });
    this.remote = Comlink.wrap<EngineWorker>(worker);
  }

  /** Everything a sheet shows. Layers whose key is unchanged keep the very same trace object. */
  async evaluate(sheet: Sheet, options: CallOptions = {}): Promise<Evaluation> {
    const reply = await this.call(
      (call) => this.remote.evaluate(call, sheet, [...this.traces.keys()]),
      options,
    );
    const layers = reply.layers.map((layer) => {
      const trace = layer.trace ?? this.traces.get(layer.key)!;
      this.traces.delete(layer.key);
      this.traces.set(layer.key, trace);
      return { ...layer, trace };
    });
    // Oldest first; keep enough for undoing a few steps without sending curves again.
    for (const key of this.traces.keys()) {
      if (this.traces.size <= 48) break;
      this.traces.delete(key);
    }
    return { ...reply, layers };
  }

  /** The built curve with one part multiplied by each factor. */
  partVariation(
    sheet: Sheet,
    stageId: string,
    part: string,
    factors: number[],
    options: CallOptions = {},
  ): Promise<LayerTrace[]> {
    return this.call(
      (call) => this.remote.partVariation(call, sheet, stageId, part, factors),
      options,
    );
  }

  /** What one of the lenses beside level and phase shows. */
  lens<R extends LensRequest>(
    sheet: Sheet,
    request: R,
    options: CallOptions = {},
  ): Promise<LensPictures[R['lens']]> {
    return this.call((call) => this.remote.lens(call, sheet, request), options) as Promise<
      LensPictures[R['lens']]
    >;
  }

  /** Weigh candidates one by one; rows arrive as they are ready. Resolves to their number. */
  weigh(
    candidates: readonly Candidate[],
    weighing: WeighOptions,
    onRow: (row: WeighRow | WeighRefusal) => void,
    options: CallOptions = {},
  ): Promise<number> {
    const handOver = Comlink.proxy(onRow);
    return this.call((call) => this.remote.weigh(call, candidates, weighing, handOver), options);
  }

  private async call<T>(
    send: (call: number) => Promise<Reply<T>>,
    { signal }: CallOptions,
  ): Promise<T> {
    if (signal?.aborted) throw new ReedError('stopped', 'Stopped on request.');
    const call = ++this.calls;
    const stop = () => void this.remote.cancel(call);
    signal?.addEventListener('abort', stop, { once: true });
    try {
      const reply = await send(call);
      if ('value' in reply) return reply.value;
      const { code, message } = reply.failure;
      throw code === 'defect' ? new Error(message) : new ReedError(code, message);
    } finally {
      signal?.removeEventListener('abort', stop);
    }
  }
}

let shared: Engine | undefined;

/** The one engine of this page. */
export function engine(): Engine {
  shared ??= new Engine();
  return shared;
}
