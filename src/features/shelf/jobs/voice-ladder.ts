import { transistorLadder } from '@/core/cells/transistor-ladder';
import { base, type Job } from './job';

export const voiceLadder: Job = {
  id: 'voice-ladder',
  who: 'synth',
  title: 'Play a transistor ladder',
  line: 'Four rungs of transistors over one current, a volt an octave',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 4, edgeHz: 600 },
  cell: transistorLadder,
  source: { name: 'Oscillator', ohms: 1000, volts: 5 },
  load: { name: 'Amplifier in', ohms: 47_000 },
};
