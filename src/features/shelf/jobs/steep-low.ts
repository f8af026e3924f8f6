import { base, type Job } from './job';

export const steepLow: Job = {
  id: 'steep-low',
  who: 'builder',
  title: 'Cut steeply above speech',
  line: 'Fourth order in two stages, 24 dB per octave',
  ask: {
    ...base,
    kind: 'low-pass',
    shape: 'butterworth',
    order: 4,
    edgeHz: 3400,
    gainDb: 0,
    topology: 'unity-low-pass',
  },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 22_000 },
};
