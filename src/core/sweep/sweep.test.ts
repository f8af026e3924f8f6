import { AcAnalysis, acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { spaced } from '@/core/response/landmarks';
import { phaseDegrees } from '@/core/response/response';
import { playThrough, USUAL_CONVERTERS } from '@/core/rig/sweep-rig';
import { exponentialSweep, type SweepPlan } from './exponential-sweep';
import { swept, type Recording } from './swept';

const plan: SweepPlan = { fromHz: 8, toHz: 23_500, seconds: 0.7, rate: 48_000 };
const played = exponentialSweep(plan).map((v) => 0.5 * v);
const frequenciesHz = spaced(20, 20_000, 61);
const circuit = makeCircuit([
  UNIT_SOURCE,
  { id: 'R1', kind: 'resistor', a: 'in', b: 'p', ohms: 1000 },
  { id: 'L1', kind: 'inductor', a: 'p', b: 'out', henries: 0.05, dcrOhms: 20 },
  { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 100e-9 },
  { id: 'R2', kind: 'resistor', a: 'out', b: '0', ohms: 2200 },
]);
const silence = (seconds: number) => new Float64Array(Math.round(seconds * plan.rate));
const heard = (samples: Float64Array): Recording => {
  const all = silence(played.length / plan.rate + 0.5);
  all.set(samples);
  return { samples: all, rate: plan.rate };
};
const apart = (a: number, b: number) => Math.abs(((a - b + 540) % 360) - 180);

test('a sweep is what it says: its frequency rises by equal factors in equal times', () => {
  const sweep = exponentialSweep({ fromHz: 20, toHz: 2000, seconds: 1, rate: 48_000 });
  expect(sweep).toHaveLength(48_000);
  const crossings = (from: number, to: number) => {
    let count = 0;
    for (let n = from; n < to; n++) if (sweep[n] < 0 !== sweep[n + 1] < 0) count++;
    return count / 2;
  };
  // A hundredfold in a second: after half of it ten times the first, so many cycles in between.
  const growth = 1 / Math.log(100);
  const cycles = (t: number) => 20 * growth * Math.expm1(t / growth);
  expect(crossings(0, 24_000)).toBeCloseTo(cycles(0.5), 0);
  expect(crossings(24_000, 47_000)).toBeCloseTo(cycles(47 / 48) - cycles(0.5), 0);
  expect(() => exponentialSweep({ ...plan, toHz: 30_000 })).toThrow('cannot be played');
  expect(() => exponentialSweep({ ...plan, seconds: 600 })).toThrow('lasts from');
});

test('a wire gives a wire: no decibel and no degree anywhere', () => {
  const { levelDb, phaseDegrees: degrees } = swept({
    plan,
    played,
    recordings: [heard(played)],
    frequenciesHz,
  });
  for (const db of levelDb) expect(Math.abs(db)).toBeLessThan(0.01);
  for (const d of degrees!) expect(Math.abs(d)).toBeLessThan(0.1);
});

test('a board on the simulated bench: within 0.1 dB and 1 degree from 20 Hz to 20 kHz', () => {
  const [loopBack] = playThrough(null, played, USUAL_CONVERTERS, [1]);
  const board = { analysis: new AcAnalysis(circuit), probe: 'out' };
  const recordings = playThrough(board, played, USUAL_CONVERTERS, [2, 3]);
  const found = swept({ plan, played, recordings, loopBack, frequenciesHz });
  const { re, im } = acResponse(circuit, { frequenciesHz, probes: ['out'] }).probes.out;
  found.levelDb.forEach((db, k) => {
    expect(Math.abs(db - 20 * Math.log10(Math.hypot(re[k], im[k])))).toBeLessThan(0.1);
    expect(apart(found.phaseDegrees![k], phaseDegrees(re[k], im[k]))).toBeLessThan(1);
  });
  expect(found.latencySeconds * plan.rate).toBeCloseTo(USUAL_CONVERTERS.latencySamples, -1);
});

test('harmonics come out by their order', () => {
  // y = x + a x^2 + b x^3 of a sine of 0.5: second a/2 x 0.25, third b/4 x 0.125, and 3b/4 x 0.125 more of itself.
  const [a, b] = [0.02, 0.04];
  const bent = played.map((x) => x + a * x * x + b * x ** 3);
  const at = Float64Array.of(100, 300, 1000, 3000);
  const { harmonics } = swept({
    plan,
    played,
    recordings: [heard(bent)],
    frequenciesHz: at,
    orders: [2, 3, 4],
  });
  const fundamental = 0.5 + (3 / 4) * b * 0.125;
  const expected = [(a / 2) * 0.25, (b / 4) * 0.125].map((v) => 20 * Math.log10(v / fundamental));
  for (const [i, db] of expected.entries())
    for (const found of harmonics[i].levelDb) expect(Math.abs(found - db)).toBeLessThan(0.3);
  for (const found of harmonics[2].levelDb) expect(found).toBeLessThan(-80);
  const high = swept({
    plan,
    played,
    recordings: [heard(bent)],
    frequenciesHz: Float64Array.of(15_000),
    orders: [2],
  });
  expect(high.harmonics[0].levelDb[0]).toBeNaN();
});

test.each<[string, () => Recording[], string]>([
  ['nothing', () => [], 'Nothing was recorded'],
  ['silence', () => [heard(silence(1))], 'Nothing came back'],
  ['a clipped top', () => [heard(played.map((v) => Math.max(-1, Math.min(1, 3 * v))))], 'clipped'],
  ['another rate', () => [{ ...heard(played), rate: 44_100 }], '44100 samples a second'],
  [
    'half of it',
    () => [{ samples: played.slice(0, 1000), rate: plan.rate }],
    'record it to its end',
  ],
  ['no numbers', () => [heard(played.map((v, n) => (n === 5 ? NaN : v)))], 'no numbers'],
])('%s is refused', (_, recordings, why) => {
  expect(() => swept({ plan, played, recordings: recordings(), frequenciesHz })).toThrow(why);
});
