import { base, level, type Job } from './job';

export const pad: Job = {
  id: 'pad',
  who: 'tweaker',
  title: 'Set a level with a pad',
  line: 'Resistors that take 10 dB away, source and load included',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
  stages: [{ topology: 'l-pad', target: { gain: 10 ** (-10 / 20) }, ohms: 10_000 }],
  readings: (hz) => [
    {
      ...level('r1', hz),
      wanted: { is: 'near', value: -10, tolerance: 0.5, relative: false },
    },
  ],
  source: { name: 'Line out', ohms: 100 },
  load: { name: 'Mixer in', ohms: 47_000 },
};
