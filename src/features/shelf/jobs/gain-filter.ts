import { base, type Job } from './job';

export const gainFilter: Job = {
  id: 'gain-filter',
  who: 'builder',
  title: 'Filter and amplify at once',
  line: 'Inverting low-pass with 12 dB of gain',
  ask: {
    ...base,
    kind: 'low-pass',
    shape: 'butterworth',
    order: 2,
    edgeHz: 8000,
    gainDb: 12,
    topology: 'multiple-feedback-low-pass',
  },
  source: { name: 'Preamp', ohms: 100 },
  load: { name: 'Line in', ohms: 22_000 },
};
