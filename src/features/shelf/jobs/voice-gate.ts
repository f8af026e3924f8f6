import { photocellGate } from '@/core/cells/photocell-gate';
import { base, type Job } from './job';

export const voiceGate: Job = {
  id: 'voice-gate',
  who: 'synth',
  title: 'Pluck a gate of light',
  line: 'Lamp and photocells: what fades grows dull, as struck things do',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 800 },
  cell: photocellGate,
  source: { name: 'Oscillator', ohms: 1000, volts: 2 },
  load: { name: 'Amplifier in', ohms: 47_000 },
};
