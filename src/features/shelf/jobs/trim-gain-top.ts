import { base, level, type Job } from './job';

export const trimGainTop: Job = {
  id: 'trim-gain-top',
  who: 'tweaker',
  title: 'Trim the top of a gain stage',
  line: 'One capacitor across the feedback resistor, 20 dB of gain below',
  ask: {
    ...base,
    kind: 'high-shelf',
    shape: 'butterworth',
    order: 1,
    edgeHz: 15_000,
    gainDb: -20,
  },
  stages: [{ topology: 'shaped-gain-top', target: { gain: 10, boost: 0.1 } }],
  readings: (hz) => [level('r1', 1000), level('r2', hz), level('r3', 20_000)],
  source: { name: 'Preamp', ohms: 600 },
  load: { name: 'Power amplifier in', ohms: 22_000 },
};
