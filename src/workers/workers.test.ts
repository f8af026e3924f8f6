import { demoMade } from '@/testing/demo';
import { candidatesOf } from '@/core/weigh/candidates';
import { Engine } from './engine';
import { EngineWorker, type Reply } from './engine-worker';
import { WorkerHost, type Hosted } from './worker-host';

/** A worker in this very thread, whose life and messages the test holds in its hands. */
class Puppet {
  static made: Puppet[] = [];
  alive = true;
  private hear: (message: unknown) => void = () => undefined;
  readonly worker = new EngineWorker((call) => this.say({ heard: call }));

  constructor() {
    Puppet.made.push(this);
    setTimeout(() => this.say({ ready: true }), 0);
  }
  say(message: unknown): void {
    if (this.alive) this.hear(message);
  }
  /** Dies without a word, as a worker that closes itself or is ended by the browser. */
  die(): void {
    this.alive = false;
  }
  get hosted(): Hosted<never> {
    const ask = (name: string, args: unknown[]) =>
      new Promise((resolve, reject) => {
        setTimeout(() => {
          if (!this.alive) return;
          const methods = this.worker as unknown as Record<string, (...a: unknown[]) => unknown>;
          Promise.resolve(methods[name](...args)).then((value) => {
            if (!this.alive) return;
            this.say({ id: 'an answer' });
            resolve(value);
          }, reject);
        }, 0);
      });
    const remote = new Proxy(
      {},
      {
        get:
          (_, name: string) =>
          (...args: unknown[]) =>
            ask(name, args),
      },
    );
    return {
      remote: remote as never,
      terminate: () => this.die(),
      listen: (hear) => (this.hear = hear),
    };
  }
}

beforeEach(() => (Puppet.made = []));

const SHEET = demoMade('2026-11-23T08:00:00.000Z')[1];
const QUICK = { acknowledgeWithin: 1000, answerWithin: 2000, pingEvery: 0, readyWithin: 20_000 };
type Remote = {
  cancel(call: number): unknown;
  ping(call: number): Promise<Reply<true>>;
  work(call: number): Promise<Reply<string>>;
};
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** A host over hand-made workers: each is what `act` says of the nth; those before `first` cannot begin. */
function host(
  act: (n: number, say: (m: unknown) => void) => Remote['work'],
  trouble?: () => void,
  first = 0,
) {
  let made = 0;
  const ended: number[] = [];
  const it = new WorkerHost<Remote>(
    () => {
      const n = made++;
      let hear: (message: unknown) => void = () => undefined;
      const say = (m: unknown) => hear(m);
      setTimeout(() => say(n < first ? null : { ready: true }), 0);
      return {
        remote: {
          cancel: () => undefined,
          ping: () => new Promise(() => undefined),
          work: act(n, say),
        },
        terminate: () => ended.push(n),
        listen: (h) => (hear = h),
      };
    },
    { ...QUICK, onTrouble: trouble },
  );
  return { it, ended, made: () => made };
}
const done = (call: number) => Promise.resolve({ value: `done ${call}` });
const never = () => new Promise<Reply<string>>(() => undefined);

describe('a worker’s host', () => {
  test('replaces a worker that is silent, says so, and asks again', async () => {
    const trouble = jest.fn();
    const { it, ended } = host((n) => (n === 0 ? never : done), trouble);
    await expect(it.call((r, call) => r.work(call))).resolves.toBe('done 1');
    expect(ended).toEqual([0]);
    expect(trouble).toHaveBeenCalledTimes(1);
    it.dispose();
  });

  test('replaces a worker that reports an error, at once, with all that it was asked', async () => {
    const { it } = host((n, say) =>
      n > 0 ? done : (call) => (setTimeout(() => say(null), 10), void call, never()),
    );
    const answers = [1, 2, 3].map(() => it.call((r, call) => r.work(call)));
    await expect(Promise.all(answers)).resolves.toEqual(['done 1', 'done 2', 'done 3']);
    it.dispose();
  });

  test('gives up what ends every worker, in words, and goes on with the rest', async () => {
    const { it, made } = host((_, say) => (call) => {
      say({ heard: call });
      return call === 1 ? never() : done(call);
    });
    await expect(it.call((r, call) => r.work(call))).rejects.toThrow(/took too long.*given up/);
    expect(made()).toBe(3);
    await expect(it.call((r, call) => r.work(call))).resolves.toBe('done 2');
    it.dispose();
  });

  test('one that cannot begin is begun again at growing distances, and what was asked is answered', async () => {
    const { it, made } = host((n) => (n < 3 ? never : done), undefined, 3);
    const early = it.call((r, call) => r.work(call));
    await expect(early).rejects.toThrow(/could not be started.*[Ll]oad the page/);
    const late = it.call((r, call) => r.work(call));
    await pause(150);
    expect(made()).toBe(2);
    await expect(late).resolves.toBe('done 2');
    expect(made()).toBe(4);
    it.dispose();
  });

  test('stops a call at once, and replaces the worker that does not let go of it', async () => {
    const trouble = jest.fn();
    const { it, ended } = host(
      (n, say) => (call) => {
        say({ heard: call });
        return n === 0 ? never() : done(call);
      },
      trouble,
    );
    const stop = new AbortController();
    const stuck = it.call((r, call) => r.work(call), stop.signal);
    const other = it.call((r, call) => r.work(call));
    await pause(20);
    stop.abort();
    await expect(stuck).rejects.toThrow(/Stopped on request/);
    // Answered before the worker was even replaced.
    expect(ended).toEqual([]);
    await expect(other).resolves.toBe('done 2');
    expect(ended).toEqual([0]);
    expect(trouble).not.toHaveBeenCalled();
    it.dispose();
  });
});

describe('the engine', () => {
  let mine: Engine;
  const engine = () => (mine = new Engine(() => new Puppet().hosted));
  afterEach(() => mine.dispose());

  test('answers an edit while a lens is at work, and keeps unchanged curves the same object', async () => {
    const it = engine();
    const order: string[] = [];
    const lens = it
      .run('lens', { sheet: SHEET, request: { lens: 'time' } })
      .then(() => order.push('lens'));
    const first = await it.evaluate(SHEET);
    order.push('edit');
    const again = await it.evaluate({ ...SHEET, title: 'renamed' });
    expect(again.layers[0].trace).toBe(first.layers[0].trace);
    expect(Puppet.made).toHaveLength(2);
    await lens;
    expect(order).toEqual(['edit', 'lens']);
  });

  test('notices a worker that died without a word, says so, and repeats the question', async () => {
    const it = engine();
    const trouble = jest.fn();
    it.onTrouble(trouble);
    const first = await it.evaluate(SHEET);
    Puppet.made[0].die();
    const after = await it.evaluate(SHEET);
    expect(after.readings).toEqual(first.readings);
    expect(after.layers[0].trace).toEqual(first.layers[0].trace);
    expect(trouble).toHaveBeenCalledTimes(1);
  });

  test('weighs in slices: rows come one by one, and a stop ends it at once', async () => {
    const it = engine();
    const stop = new AbortController();
    const rows: unknown[] = [];
    const weighing = it.run(
      'weigh',
      { candidates: candidatesOf(SHEET.ask), options: { boards: 8 } },
      {
        signal: stop.signal,
        progress: (row) => {
          rows.push(row);
          if (rows.length === 3) stop.abort();
        },
      },
    );
    await expect(weighing).rejects.toThrow(/Stopped/);
    await pause(100);
    expect(rows).toHaveLength(3);
  });

  test('says a failure of the core in its words', async () => {
    const it = engine();
    await expect(
      it.run('variation', { sheet: SHEET, stageId: 's1', part: 'R1', factors: [0] }),
    ).rejects.toThrow(/“R1” has a value.*above zero/);
  });
});
