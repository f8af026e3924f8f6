import type { Job } from './job';

export const meetLimits: Job = {
  id: 'meet-limits',
  who: 'steep',
  title: 'Meet limits with the least parts',
  line: 'What must pass, what must not; the order follows',
  ask: {
    kind: 'low-pass',
    shape: 'elliptic',
    limits: { passHz: 3400, passDb: 0.5, stopHz: 6000, stopDb: 45 },
  },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 22_000 },
};
