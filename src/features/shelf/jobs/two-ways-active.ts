import { activeShelfSpeaker } from '@/core/demo/crossovers';
import { base, type Job } from './job';

export const twoWaysActive: Job = {
  id: 'two-ways-active',
  who: 'speaker',
  title: 'Two ways, an amplifier each',
  line: 'The bass unit and the dome behind op-amps: slopes, a dip, delay and level at line level',
  ask: { ...base, kind: 'low-pass', shape: 'linkwitz-riley', order: 4, edgeHz: 2500 },
  source: { name: 'Line', ohms: 100 },
  load: { name: '', ohms: null },
  crossover: activeShelfSpeaker,
};
