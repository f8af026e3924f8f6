import { base, level, type Job } from './job';

export const trace: Job = {
  id: 'trace',
  who: 'tracer',
  title: 'Trace a circuit, part by part',
  line: 'Begin at its input and say what is joined to what; it draws itself',
  ask: { ...base, kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
  own: true,
  readings: (hz) => [
    level('r1', hz),
    { id: 'r2', measure: { measure: 'peak-level' } },
    { id: 'r3', measure: { measure: 'peak-frequency' } },
  ],
  source: { name: 'Source', ohms: 0 },
  load: { name: 'Load', ohms: 100_000 },
};
