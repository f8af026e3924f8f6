import type { Reply } from './engine-worker';
import { Pool } from './pool';
import { WorkerHost, type Watched } from './worker-host';

interface Remote extends Watched {
  work(call: number): Promise<Reply<string>>;
}

test('calls go to whoever is free; workers are started up to a most, then share', async () => {
  const open: (() => void)[][] = [];
  const pool = new Pool<Remote>(() => {
    const n = open.push([]) - 1;
    const remote: Remote = {
      cancel: () => undefined,
      work: () => new Promise((resolve) => open[n].push(() => resolve({ value: `worker ${n}` }))),
    };
    const hosted = { remote, terminate: () => undefined, listen: () => undefined };
    return new WorkerHost<Remote>(() => hosted, { pingEvery: 0 });
  }, 2);
  const ask = () => pool.call((remote, call) => remote.work(call));
  const [a, b, c] = [ask(), ask(), ask()];
  expect(open.map((calls) => calls.length)).toEqual([2, 1]);
  open[1][0]();
  await expect(b).resolves.toBe('worker 1');
  const d = ask();
  expect(open[1]).toHaveLength(2);
  open[0][0]();
  open[0][1]();
  open[1][1]();
  await expect(Promise.all([a, c, d])).resolves.toEqual(['worker 0', 'worker 0', 'worker 1']);
  pool.dispose();
});
