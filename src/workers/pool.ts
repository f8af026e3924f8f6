import type { Reply } from './engine-worker';
import type { WorkerHost, Watched } from './worker-host';

/**
 * Some workers that are all alike. A call goes to one that has nothing to do; where there is none,
 * another is started, up to a most; after that it goes to the one with the fewest calls.
 */
export class Pool<Remote extends Watched> {
  private readonly hosts: WorkerHost<Remote>[] = [];

  constructor(
    private readonly make: () => WorkerHost<Remote>,
    private readonly most: number,
  ) {}

  call<T>(
    send: (remote: Remote, call: number) => Promise<Reply<T>>,
    signal?: AbortSignal,
  ): Promise<T> {
    return this.next().call(send, signal);
  }

  dispose(): void {
    for (const host of this.hosts) host.dispose();
  }

  private next(): WorkerHost<Remote> {
    const free = this.hosts.find((host) => host.busy === 0);
    if (free) return free;
    if (this.hosts.length < this.most) {
      const fresh = this.make();
      this.hosts.push(fresh);
      return fresh;
    }
    return this.hosts.reduce((a, b) => (b.busy < a.busy ? b : a));
  }
}
