import { base, type Job } from './job';

export const keepRumble: Job = {
  id: 'keep-rumble',
  who: 'builder',
  title: 'Keep rumble out',
  line: 'Second-order high-pass under the music',
  ask: {
    ...base,
    kind: 'high-pass',
    shape: 'butterworth',
    order: 2,
    edgeHz: 20,
    gainDb: 0,
    topology: 'unity-high-pass',
  },
  source: { name: 'Preamp', ohms: 220 },
  load: { name: 'Line in', ohms: 22_000 },
};
