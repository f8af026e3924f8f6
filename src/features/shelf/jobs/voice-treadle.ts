import { treadle } from '@/core/cells/treadle';
import { base, type Job } from './job';

export const voiceTreadle: Job = {
  id: 'voice-treadle',
  who: 'synth',
  title: 'Move a peak by foot',
  line: 'A coil, two transistors and a treadle, on nine volts',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 950 },
  cell: treadle,
  source: { name: 'Instrument', ohms: 10_000, volts: 0.05 },
  load: { name: 'Amplifier in', ohms: 1e6 },
};
