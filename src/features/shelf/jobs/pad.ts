import { base, level, type Job } from './job';

export const pad: Job = {
  id: 'pad',
  who: 'tweaker',
  title: 'Set a level with a pad',
  line: 'Two resistors, 10 dB down, loads included',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
  stages: [{ topology: 'l-pad', target: { gain: 0.316 } }],
  readings: (hz) => [level('r1', hz)],
  source: { name: 'Line out', ohms: 100 },
  load: { name: 'Mixer in', ohms: 47_000 },
};
