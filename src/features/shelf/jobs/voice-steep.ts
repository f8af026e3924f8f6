import { base, type Job } from './job';

export const voiceSteep: Job = {
  id: 'voice-steep',
  who: 'synth',
  title: 'Sweep a steep low-pass',
  line: 'A ladder of five poles simulated by transconductors, a volt an octave',
  ask: { ...base, kind: 'low-pass', shape: 'chebyshev', order: 5, edgeHz: 1000 },
  stages: [
    {
      topology: 'leapfrog-transconductor-low-pass-5',
      target: {},
    },
  ],
  controlled: true,
  source: { name: 'Oscillator', ohms: 1000, volts: 1 },
  load: { name: 'Amplifier in', ohms: 47_000 },
};
