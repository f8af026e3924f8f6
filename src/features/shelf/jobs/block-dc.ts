import { base, type Job } from './job';

export const blockDc: Job = {
  id: 'block-dc',
  who: 'learner',
  title: 'Block d.c., keep the music',
  line: 'One capacitor into one resistor',
  ask: { ...base, kind: 'high-pass', shape: 'butterworth', order: 1, edgeHz: 10 },
  source: { name: 'Output stage', ohms: 100 },
  load: { name: 'Next input', ohms: 100_000 },
};
