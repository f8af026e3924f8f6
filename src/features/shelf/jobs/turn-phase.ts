import { base, type Job } from './job';

export const turnPhase: Job = {
  id: 'turn-phase',
  who: 'builder',
  title: 'Turn phase, leave level alone',
  line: 'An all-pass of second order',
  ask: { ...base, kind: 'all-pass', shape: 'bessel', order: 2, edgeHz: 500 },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 22_000 },
};
