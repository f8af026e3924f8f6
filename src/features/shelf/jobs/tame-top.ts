import { base, type Job } from './job';

export const tameTop: Job = {
  id: 'tame-top',
  who: 'learner',
  title: 'Take the top off, simply',
  line: 'One resistor, one capacitor, 6 dB per octave',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 5000 },
  source: { name: 'Line out', ohms: 600 },
  load: { name: 'Line in', ohms: 47_000 },
};
