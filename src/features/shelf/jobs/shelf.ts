import { base, type Job } from './job';

export const shelf: Job = {
  id: 'shelf',
  who: 'tweaker',
  title: 'Lift the bass or the treble',
  line: 'A shelf, half its height at the edge',
  ask: { ...base, kind: 'high-shelf', shape: 'butterworth', order: 1, edgeHz: 3000, gainDb: -6 },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 22_000 },
};
