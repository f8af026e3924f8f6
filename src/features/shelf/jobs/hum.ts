import { base, type Job } from './job';

export const hum: Job = {
  id: 'hum',
  who: 'builder',
  title: 'Take out a hum',
  line: 'A narrow notch at the mains frequency',
  ask: { ...base, kind: 'notch', shape: 'butterworth', centreHz: 50, q: 4, gainDb: 0 },
  source: { name: 'Preamp', ohms: 220 },
  load: { name: 'Line in', ohms: 22_000 },
};
