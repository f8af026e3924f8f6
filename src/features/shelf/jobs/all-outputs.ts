import { base, type Job } from './job';

export const allOutputs: Job = {
  id: 'all-outputs',
  who: 'builder',
  title: 'Low, band and high from one circuit',
  line: 'State-variable: three outputs, Q and corner set apart',
  ask: {
    ...base,
    kind: 'low-pass',
    shape: 'butterworth',
    order: 2,
    edgeHz: 1000,
    topology: 'state-variable-low-pass',
  },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 22_000 },
};
