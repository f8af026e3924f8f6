import { otaStateVariable } from '@/core/cells/ota-state-variable';
import { base, type Job } from './job';

export const voiceStateVariable: Job = {
  id: 'voice-state-variable',
  who: 'synth',
  title: 'Have low, band and high of a voice at once',
  line: 'Two integrators in a ring, one current for the cut-off, Q apart',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 600 },
  cell: otaStateVariable,
  source: { name: 'Oscillator', ohms: 1000, volts: 5 },
  load: { name: 'Amplifier in', ohms: 47_000 },
};
