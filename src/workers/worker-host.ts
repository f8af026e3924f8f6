import { ReedError } from '@/core/errors';
import type { Reply } from './engine-worker';

/** A worker as its host sees it: what it offers, what it says, and its end. */
export interface Hosted<Remote> {
  remote: Remote;
  terminate: () => void;
  /** Called with every message the worker posts, and with `null` when it reports an error. */
  listen: (hear: (message: unknown) => void) => void;
}

export interface HostOptions {
  /** After a stop, this long is given to a call to end by itself; then the worker is replaced. */
  stopWithin?: number;
  /** An idle worker must acknowledge a call within this time, milliseconds. */
  acknowledgeWithin?: number;
  /** An acknowledged call must be answered within this time. */
  answerWithin?: number;
  /** A worker that has just been made must say that it is there within this time. */
  readyWithin?: number;
  /** An idle worker is asked for a sign of life this often; zero for never. */
  pingEvery?: number;
  /** Told when a worker that had died was replaced. */
  onTrouble?: () => void;
}

const DEFAULTS = {
  stopWithin: 80,
  acknowledgeWithin: 2_500,
  answerWithin: 20_000,
  readyWithin: 20_000,
  pingEvery: 3_000,
};

/** What every watched worker can be told. */
export interface Watched {
  cancel(call: number): unknown;
  ping?: unknown;
}

/** A call that ended two workers is not given to a third. */
const MOST_TRIES = 2;

/** What cannot begin (its script is not to be had) is tried again after ever longer, milliseconds. */
const FIRST_REST = 250;
const LONGEST_REST = 16_000;

interface Call<Remote> {
  send: (remote: Remote, call: number) => Promise<Reply<unknown>>;
  settle: (reply: Reply<unknown>) => void;
  acknowledged: boolean;
  tries: number;
}

/**
 * Keeps one worker alive. A worker that reports an error, or does not answer, is ended and made
 * again, and whatever it had been asked is asked again. A call that was stopped is answered at once;
 * if the worker does not let go of it, the worker is replaced without a word.
 */
export class WorkerHost<Remote extends Watched> {
  private readonly calls = new Map<number, Call<Remote>>();
  private readonly options: Required<Omit<HostOptions, 'onTrouble'>> & HostOptions;
  private hosted: Hosted<Remote>;
  private count = 0;
  private heardAt = 0;
  private ready = false;
  private watch: ReturnType<typeof setInterval> | undefined;
  /** How many workers, one after another, ended before they had begun. */
  private unbegun = 0;
  private rest: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly make: () => Hosted<Remote>,
    options: HostOptions = {},
  ) {
    this.options = { ...DEFAULTS, ...options };
    this.hosted = this.begin();
  }

  /** How many calls it has not answered. */
  get busy(): number {
    return this.calls.size;
  }

  /** Ask the worker something. */
  call<T>(
    send: (remote: Remote, call: number) => Promise<Reply<T>>,
    signal?: AbortSignal,
  ): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      if (signal?.aborted) {
        reject(stopped());
        return;
      }
      const number = ++this.count;
      const stop = () => this.stop(number);
      signal?.addEventListener('abort', stop, { once: true });
      const settle = (reply: Reply<unknown>) => {
        this.calls.delete(number);
        signal?.removeEventListener('abort', stop);
        if ('value' in reply) resolve(reply.value as T);
        else {
          const { code, message } = reply.failure;
          reject(code === 'defect' ? new Error(message) : new ReedError(code, message));
        }
      };
      if (this.calls.size === 0) this.heardAt = Date.now();
      this.calls.set(number, { send, settle, acknowledged: false, tries: 0 });
      if (this.rest === undefined) this.send(number);
    });
  }

  /** End the worker for good. */
  dispose(): void {
    clearInterval(this.watch);
    clearTimeout(this.rest);
    this.hosted.terminate();
    for (const { settle } of this.calls.values()) settle(failure('stopped', 'Stopped on request.'));
  }

  private begin(): Hosted<Remote> {
    this.rest = undefined;
    const hosted = this.make();
    this.hosted = hosted;
    this.ready = false;
    this.heardAt = Date.now();
    hosted.listen((message) => {
      if (this.hosted !== hosted) return;
      if (message === null) {
        this.replace(true);
        return;
      }
      this.heardAt = Date.now();
      const { ready, heard } = message as { ready?: true; heard?: number };
      if (ready) [this.ready, this.unbegun] = [true, 0];
      const call = heard === undefined ? undefined : this.calls.get(heard);
      if (call) call.acknowledged = true;
    });
    this.watch ??= setInterval(() => this.check(), 250);
    return hosted;
  }

  private send(number: number): void {
    const call = this.calls.get(number)!;
    const { hosted } = this;
    call.acknowledged = false;
    call.tries++;
    call.send(hosted.remote, number).then(
      (reply) => {
        if (this.hosted === hosted) call.settle(reply);
      },
      (error: unknown) => {
        if (this.hosted === hosted) call.settle(failure('defect', String(error)));
      },
    );
  }

  private stop(number: number): void {
    const call = this.calls.get(number);
    if (!call) return;
    const { hosted } = this;
    call.settle(failure('stopped', 'Stopped on request.'));
    void hosted.remote.cancel(number);
    if (!call.acknowledged) return;
    // Whether it lets go is seen by whether it answers a sign of life.
    let alive = false;
    const since = Date.now();
    void (hosted.remote.ping as ((call: number) => Promise<unknown>) | undefined)?.(-number).then(
      () => (alive = true),
    );
    setTimeout(() => {
      if (!alive && this.hosted === hosted && this.heardAt <= since) this.replace(false);
    }, this.options.stopWithin);
  }

  /** Look whether the worker still does what it was asked. */
  private check(): void {
    if (this.rest !== undefined) return;
    const { acknowledgeWithin, answerWithin, readyWithin, pingEvery } = this.options;
    const silence = Date.now() - this.heardAt;
    if (this.calls.size === 0) {
      if (this.ready && pingEvery > 0 && silence > pingEvery) {
        const { hosted } = this;
        const ping = hosted.remote.ping as ((call: number) => Promise<Reply<unknown>>) | undefined;
        if (ping) void this.call((_, call) => ping(call)).catch(() => undefined);
      }
      return;
    }
    const working = [...this.calls.values()].some((c) => c.acknowledged);
    const patience = !this.ready ? readyWithin : working ? answerWithin : acknowledgeWithin;
    if (silence > patience) this.replace(true);
  }

  private replace(died: boolean): void {
    if (this.rest !== undefined) return;
    this.hosted.terminate();
    if (died && !this.ready) this.unbegun++;
    if (died) this.giveUp();
    else for (const call of this.calls.values()) call.tries--;
    if (this.unbegun < 2) this.again(died);
    else {
      const after = Math.min(FIRST_REST * 2 ** (this.unbegun - 2), LONGEST_REST);
      this.rest = setTimeout(() => this.again(died), after);
    }
  }

  private again(died: boolean): void {
    this.begin();
    if (died) this.options.onTrouble?.();
    for (const number of this.calls.keys()) this.send(number);
  }

  /** Answer the calls that have ended as many workers as they may. */
  private giveUp(): void {
    for (const call of [...this.calls.values()])
      if (call.tries >= MOST_TRIES) call.settle(this.ready ? tooLong() : notStarted());
  }
}

const tooLong = () =>
  failure(
    'range',
    'This took too long to work out, and was given up. Undo the last change, or make the sheet smaller.',
  );
const notStarted = () =>
  failure(
    'range',
    'What works out circuits could not be started, and is tried again by and by. Load the page anew if this stays.',
  );
const failure = (code: ReedError['code'] | 'defect', message: string): Reply<never> => ({
  failure: { code, message },
});
const stopped = () => new ReedError('stopped', 'Stopped on request.');
