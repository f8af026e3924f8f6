import { base, level, type Job } from './job';

export const trimGainBottom: Job = {
  id: 'trim-gain-bottom',
  who: 'tweaker',
  title: 'Trim the bottom of a gain stage',
  line: 'One capacitor in the foot of the divider, no gain for d.c.',
  ask: { ...base, kind: 'low-shelf', shape: 'butterworth', order: 1, edgeHz: 20, gainDb: -20 },
  stages: [{ topology: 'shaped-gain-bottom', target: { gain: 10, boost: 0.1 } }],
  readings: (hz) => [level('r1', 1000), level('r2', hz), level('r3', 41)],
  source: { name: 'Preamp', ohms: 600 },
  load: { name: 'Power amplifier in', ohms: 22_000 },
};
