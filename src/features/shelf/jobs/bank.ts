import { base, type Job } from './job';

export const bank: Job = {
  id: 'bank',
  who: 'bank',
  title: 'A bank of bands',
  line: 'Six channels side by side, an octave apart',
  ask: { ...base, kind: 'band-pass', shape: 'butterworth', order: 2, centreHz: 500, q: 2 },
  source: { name: 'Line out', ohms: 0 },
  load: { name: 'Summing resistor', ohms: 47_000 },
  bank: [1 / 4, 1 / 2, 1, 2, 4, 8],
};
