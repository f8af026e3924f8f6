import { commonEmitter } from '@/core/bias/common-emitter';
import { base, type Job } from './job';

export const transistorStage: Job = {
  id: 'transistor-stage',
  who: 'synth',
  title: 'Bias a transistor stage',
  line: 'From supply, current and gain to resistors, and what it does to its neighbours',
  ask: { ...base, kind: 'high-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
  bias: commonEmitter,
  source: { name: 'Instrument', ohms: 10_000, volts: 0.1 },
  load: { name: 'Amplifier in', ohms: 47_000 },
};
