import { shelfSpeaker } from '@/core/demo/crossovers';
import { base, type Job } from './job';

export const twoWays: Job = {
  id: 'two-ways',
  who: 'speaker',
  title: 'Two ways, without power',
  line: 'A bass unit and a dome behind one amplifier, to be tuned on their true impedances',
  ask: { ...base, kind: 'low-pass', shape: 'linkwitz-riley', order: 2, edgeHz: 2500 },
  source: { name: 'Amplifier', ohms: 0.05 },
  load: { name: '', ohms: null },
  crossover: shelfSpeaker,
};
