import { base, type Job } from './job';

export const oneBand: Job = {
  id: 'one-band',
  who: 'builder',
  title: 'Keep one band',
  line: 'Band-pass around a centre, two op-amps',
  ask: {
    ...base,
    kind: 'band-pass',
    shape: 'butterworth',
    order: 2,
    lowerHz: 800,
    upperHz: 1250,
    gainDb: 0,
  },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 22_000 },
};
