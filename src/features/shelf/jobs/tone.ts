import { base, level, type Job } from './job';

export const tone: Job = {
  id: 'tone',
  who: 'tweaker',
  title: 'Bass and treble knobs without an op-amp',
  line: 'A passive tone control, both knobs in the middle',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
  stages: [{ topology: 'tone-control', target: { own: { bass: 0.1, treble: 0.1 } } }],
  readings: (hz) => [level('r1', hz / 10), level('r2', hz), level('r3', hz * 10)],
  source: { name: 'Buffer', ohms: 100 },
  load: { name: 'Amplifier in', ohms: 470_000 },
};
