import { hallSpeaker } from '@/core/demo/crossovers';
import { base, type Job } from './job';

export const threeWays: Job = {
  id: 'three-ways',
  who: 'speaker',
  title: 'Three ways, without power',
  line: 'Bass, middle and dome behind one amplifier',
  ask: { ...base, kind: 'low-pass', shape: 'linkwitz-riley', order: 2, edgeHz: 450 },
  source: { name: 'Amplifier', ohms: 0.05 },
  load: { name: '', ohms: null },
  crossover: hallSpeaker,
};
