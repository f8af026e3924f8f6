import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { minimumPhaseDegrees } from './minimum-phase';
import { evenly } from './tune/measure';

test('the reference is met within its tolerance where it holds', () => {
  const reference = JSON.parse(
    readFileSync(join(__dirname, '../fixtures/minimum-phase.json'), 'utf8'),
  ) as {
    frequenciesHz: number[];
    levelDb: number[];
    phaseDegrees: number[];
    lowSlope: number;
    highSlope: number;
    heldFromHz: number;
    heldToHz: number;
    toleranceDegrees: number;
  };
  const { frequenciesHz: hz, levelDb, phaseDegrees, heldFromHz, heldToHz } = reference;
  const found = minimumPhaseDegrees(hz, levelDb, reference);
  hz.forEach((f, k) => {
    if (f < heldFromHz || f > heldToHz) return;
    expect(Math.abs(found[k] - phaseDegrees[k])).toBeLessThan(reference.toleranceDegrees);
  });
});

test.each([
  ['a first-order low-pass', 0, -6.0206, (w: number) => [1 / (1 + w * w), -Math.atan(w)]],
  [
    'a first-order high-pass',
    6.0206,
    0,
    (w: number) => [(w * w) / (1 + w * w), Math.PI / 2 - Math.atan(w)],
  ],
] as const)('%s has the phase of its closed form', (_, lowSlope, highSlope, form) => {
  const hz = evenly(10, 100_000, 200);
  const levelDb = hz.map((f) => 10 * Math.log10(form(f / 1000)[0]));
  const found = minimumPhaseDegrees(hz, levelDb, { lowSlope, highSlope });
  hz.forEach((f, k) =>
    expect(Math.abs(found[k] - (form(f / 1000)[1] * 180) / Math.PI)).toBeLessThan(0.05),
  );
});

test('a level that falls straight on turns by fifteen degrees a dB an octave', () => {
  const hz = evenly(20, 20_000, 31);
  const levelDb = hz.map((f) => -12 * Math.log2(f / 20));
  const found = minimumPhaseDegrees(hz, levelDb, { lowSlope: -12, highSlope: -12 });
  // 90 degrees for 6.0206 dB an octave.
  for (const degrees of found) expect(degrees).toBeCloseTo((-90 * 12) / 6.0206, 3);
});

test('rows that do not rise are refused', () =>
  expect(() => minimumPhaseDegrees([10, 10], [0, 0], { lowSlope: 0, highSlope: 0 })).toThrow(
    /do not rise at row 2/,
  ));
