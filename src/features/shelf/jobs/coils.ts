import { base, type Job } from './job';

export const coils: Job = {
  id: 'coils',
  who: 'steep',
  title: 'Filter without power',
  line: 'A ladder of coils and capacitors between two resistors',
  ask: {
    ...base,
    kind: 'low-pass',
    shape: 'butterworth',
    order: 5,
    edgeHz: 15_000,
    topology: 'lc-ladder-low-pass-5',
  },
  source: { name: 'Line out', ohms: 0 },
  load: { name: 'Line in', ohms: 100_000 },
};
