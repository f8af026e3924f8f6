import { otaCascade } from '@/core/cells/ota-cascade';
import { base, type Job } from './job';

export const voiceCascade: Job = {
  id: 'voice-cascade',
  who: 'synth',
  title: 'Play a low-pass voice',
  line: 'Four transconductors in a loop, a volt an octave, resonance up to singing',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 4, edgeHz: 600 },
  cell: otaCascade,
  source: { name: 'Oscillator', ohms: 1000, volts: 5 },
  load: { name: 'Amplifier in', ohms: 47_000 },
};
