import { nineVoltBox } from '@/core/cells/nine-volt-box';
import { base, type Job } from './job';

export const voiceBox: Job = {
  id: 'voice-box',
  who: 'synth',
  title: 'Sweep with two diodes',
  line: 'One op-amp, two diodes in its cut-off path, resonance up to singing, one battery',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 1200 },
  cell: nineVoltBox,
  source: { name: 'Oscillator', ohms: 1000, volts: 0.3 },
  load: { name: 'Amplifier in', ohms: 47_000 },
  supply: { is: 'single', volts: 9, ohms: 10e3, farads: 100e-6 },
};
