import * as Comlink from 'comlink';
import type { CrossoverPicture } from '@/core/crossover/picture';
import type { JobInput, JobName, JobResult, JobStep } from '@/core/jobs';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';
import type { EngineWorker } from './engine-worker';
import { packSheet, unpackEvaluation } from './evaluation-parcels';
import { Packer, Unpacker } from './parcel';
import { Pool } from './pool';
import { WorkerHost, type Hosted } from './worker-host';

export interface CallOptions {
  signal?: AbortSignal;
}

export interface JobOptions<N extends JobName> extends CallOptions {
  /** Handed every part of the result as it is ready, each once. */
  progress?: (step: JobStep<N>) => void;
}

/** Workers for jobs: one for each core that is left, at least two, so that a long one blocks no other. */
const JOB_WORKERS = Math.max(2, Math.min(4, (globalThis.navigator?.hardwareConcurrency ?? 2) - 1));

/** Where jobs are to be gentle they begin once edits have rested for so long, milliseconds. */
const REST = 400;

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
  /** So many jobs run at once; more wait for each other. */
  readonly jobWorkers = JOB_WORKERS;
  /** Whether something must not miss its beat: jobs then leave the machine to it and to the edits. */
  gentle = false;
  private editedAt = -Infinity;
  private readonly edits: WorkerHost<Remote>;
  private readonly jobs: Pool<Remote>;
  /** By worker: what it was sent and what it sent. */
  private readonly parcels = new WeakMap<Remote, { packer: Packer; unpacker: Unpacker }>();
  private readonly listeners = new Set<() => void>();

  constructor(private readonly start: () => Hosted<Remote> = startWorker) {
    this.edits = this.host();
    this.jobs = new Pool(() => this.host(), JOB_WORKERS);
  }

  /** Told whenever a worker had died and was started again. */
  onTrouble(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Everything a sheet shows. Results that stand on nothing that changed are the very same objects. */
  evaluate(sheet: Sheet, options: CallOptions = {}): Promise<Evaluation> {
    this.editedAt = performance.now();
    return this.edits.call(async (remote, call) => {
      const { packer, unpacker } = this.parcelsOf(remote);
      const reply = await remote.evaluate(call, packSheet(packer, sheet));
      // Unpacked even if nobody waits for it any more: the next one builds on it.
      return 'failure' in reply ? reply : { value: unpackEvaluation(unpacker, reply.value) };
    }, options.signal);
  }

  /** Everything that a crossover's screen shows of its curves and figures. */
  crossover(sheet: Sheet, options: CallOptions = {}): Promise<CrossoverPicture> {
    return this.edits.call(
      (remote, call) => remote.crossover(call, packSheet(this.parcelsOf(remote).packer, sheet)),
      options.signal,
    );
  }

  private parcelsOf(remote: Remote) {
    let own = this.parcels.get(remote);
    if (!own) this.parcels.set(remote, (own = { packer: new Packer(), unpacker: new Unpacker() }));
    return own;
  }

  /** Run a job of the table, in whichever worker has room for it. */
  async run<N extends JobName>(
    name: N,
    input: JobInput<N>,
    { signal, progress }: JobOptions<N> = {},
  ): Promise<JobResult<N>> {
    if (this.gentle) await this.rested(signal);
    // After a restart the steps come again from the first: each is handed over once.
    let handed = 0;
    let arrived = () => undefined as void;
    const { result, steps } = await this.jobs.call((remote, call) => {
      // What a worker offers is typed as if it stood here; its answers come as promises either way.
      const run = remote.run as unknown as EngineWorker['run'];
      if (!progress) return run(call, name, input);
      let count = 0;
      const onStep = (step: JobStep<N>) => {
        if (signal?.aborted || ++count <= handed) return;
        handed = count;
        progress(step);
        arrived();
      };
      return run(call, name, input, Comlink.proxy(onStep));
    }, signal);
    // Steps come by a way of their own: the last may arrive after the answer that all are done.
    while (progress && handed < steps && !signal?.aborted)
      await new Promise<void>((resolve) => {
        arrived = resolve;
        setTimeout(resolve, 50);
      });
    return result;
  }

  /** Until no edit has been asked about for a while, or nobody waits any more. */
  private async rested(signal: AbortSignal | undefined): Promise<void> {
    for (;;) {
      const left = this.editedAt + REST - performance.now();
      if (left <= 0 || signal?.aborted) return;
      await new Promise((resolve) => setTimeout(resolve, left));
    }
  }

  /** End the workers; for whoever made an engine of his own. */
  dispose(): void {
    this.edits.dispose();
    this.jobs.dispose();
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
