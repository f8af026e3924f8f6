import { base, type Job } from './job';

export const flatLow: Job = {
  id: 'flat-low',
  who: 'builder',
  title: 'Pass low notes with a flat top',
  line: 'Second order, op-amp, no peak',
  ask: {
    ...base,
    kind: 'low-pass',
    shape: 'butterworth',
    order: 2,
    edgeHz: 1000,
    gainDb: 0,
    topology: 'unity-low-pass',
  },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 22_000 },
};
