import { takeOfImpulse } from './impulse-take';

const RATE = 48_000;
const VIEW = { fromHz: 20, toHz: 20_000 };
const recording = (seconds: number, sample: (n: number) => number, rate = RATE) => ({
  samples: Float64Array.from({ length: Math.round(seconds * rate) }, (_, n) => sample(n)),
  rate,
});

test('an impulse that dies away like a first-order low-pass is one, wherever it begins', () => {
  const tau = 1e-3;
  const at = 5000;
  const decay = recording(1, (n) => (n < at ? 0 : 0.3 * Math.exp(-(n - at) / (tau * RATE))));
  const { frequenciesHz, levelDb, phaseDegrees } = takeOfImpulse(VIEW, decay);
  expect(phaseDegrees).toBeUndefined();
  // 1/(1 - a z^-1) with a = exp(-1/(tau rate)): exact for what was sampled.
  const a = Math.exp(-1 / (tau * RATE));
  const exact = (hz: number) => {
    const w = (2 * Math.PI * hz) / RATE;
    return -10 * Math.log10(1 - 2 * a * Math.cos(w) + a * a);
  };
  const shift = levelDb[0] - exact(frequenciesHz[0]);
  frequenciesHz.forEach((hz, k) =>
    expect(Math.abs(levelDb[k] - shift - exact(hz))).toBeLessThan(0.05),
  );
  expect(frequenciesHz[frequenciesHz.length - 1]).toBeCloseTo(20_000, 6);
});

test('a short one tells nothing low, and one that tells nothing of the picture is refused', () => {
  const click = (n: number) => (n === 100 ? 0.5 : 0);
  expect(takeOfImpulse(VIEW, recording(0.05, click)).frequenciesHz[0]).toBeGreaterThan(40);
  expect(() => takeOfImpulse({ fromHz: 20, toHz: 60 }, recording(0.05, click))).toThrow(
    'The recording tells from 42 to 21600 Hz, and the sheet’s picture shows 20 to 60 Hz',
  );
});

test.each<[string, ReturnType<typeof recording>, string]>([
  ['silence', recording(1, () => 0), 'silent'],
  ['a tone', recording(1, (n) => 0.3 * Math.sin(n / 30)), 'no impulse response'],
  ['noise', recording(1, (n) => 0.3 * Math.sin(n * n)), 'no impulse response'],
])('%s is refused', (_, what, why) => {
  expect(() => takeOfImpulse(VIEW, what)).toThrow(why);
});
