import { activeHallSpeaker } from '@/core/demo/crossovers';
import { base, type Job } from './job';

export const threeWaysActive: Job = {
  id: 'three-ways-active',
  who: 'speaker',
  title: 'Three ways, an amplifier each',
  line: 'Bass, middle and dome behind op-amps, steep slopes and delays at line level',
  ask: { ...base, kind: 'low-pass', shape: 'linkwitz-riley', order: 4, edgeHz: 450 },
  source: { name: 'Line', ohms: 100 },
  load: { name: '', ohms: null },
  crossover: activeHallSpeaker,
};
