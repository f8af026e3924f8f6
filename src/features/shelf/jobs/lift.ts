import { base, type Job } from './job';

export const lift: Job = {
  id: 'lift',
  who: 'tweaker',
  title: 'Lift or cut one region',
  line: 'A peak with its height and width',
  ask: { ...base, kind: 'peak', shape: 'butterworth', centreHz: 2500, q: 1.4, gainDb: 6 },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 22_000 },
};
