import { base, type Job } from './job';

export const learnRc: Job = {
  id: 'learn-rc',
  who: 'learner',
  title: 'See what one resistor and one capacitor do',
  line: 'Low notes pass, high notes are eaten; look at Level, then at Time',
  ask: {
    ...base,
    kind: 'low-pass',
    shape: 'butterworth',
    order: 1,
    edgeHz: 1000,
    topology: 'rc-low-pass',
  },
  source: { name: 'Signal', ohms: 0 },
  load: { name: 'Nothing', ohms: null },
};
