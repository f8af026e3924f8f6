import { HALF_POWER_DB } from '@/core/response/decibels';
import { base, level, type Job } from './job';

export const learnLoading: Job = {
  id: 'learn-loading',
  who: 'learner',
  title: 'See why two RCs in a row are not twice one',
  line: 'The second loads the first: its joint says by how much',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
  stages: [
    { topology: 'rc-low-pass', target: {} },
    { topology: 'rc-low-pass', target: {} },
  ],
  readings: (hz) => [
    level('r1', hz, 'Level at the corner of each'),
    {
      id: 'r2',
      measure: {
        measure: 'edge',
        downDb: HALF_POWER_DB,
        side: 'upper',
        reference: { from: 'plateau' },
      },
    },
  ],
  source: { name: 'Signal', ohms: 0 },
  load: { name: 'Nothing', ohms: null },
};
