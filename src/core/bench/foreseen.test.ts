import { withoutPause } from '@/core/lenses/layers';
import { spreadOfSheet } from '@/core/sheet/spread-sheet';
import { newSheet } from '@/testing/open-sheet';
import { foresee, spotFrequencies, spotStep, takeOfSpots } from './foreseen';

const SHEET = newSheet();

test('a plan measures where the readings are read, beyond the edge, and over the whole picture', async () => {
  const spots = spotFrequencies(SHEET);
  expect(spots).toEqual([...spots].sort((a, b) => a - b));
  expect(spots.length).toBeGreaterThanOrEqual(8);
  for (const hz of spots) {
    expect(hz).toBeGreaterThanOrEqual(SHEET.view.fromHz);
    expect(hz).toBeLessThanOrEqual(SHEET.view.toHz);
    expect(hz).toBe(Number(hz.toPrecision(2)));
  }
  const { spots: found, exact, spread } = await foresee(SHEET, [], withoutPause);
  expect(found.map((s) => s.hz)).toEqual(spots);
  for (const { hz, level } of found) {
    const k = exact.hz.findIndex((f) => f >= hz);
    // Between its limits lies what exact parts give, a little beside a steep slope.
    expect(exact.db[Math.max(0, k - 1)]).toBeGreaterThan(level!.p1 - 1);
    expect(exact.db[k]).toBeLessThan(level!.p99 + 1);
  }
  // The sheet's own readings come to what the sheet says of them.
  const run = spreadOfSheet(SHEET, { boards: 1000, seed: 1 });
  run.draw(1000);
  const own = run.result(false).readings;
  expect(spread.readings).toHaveLength(SHEET.readings.length);
  spread.readings.forEach((reading, r) => {
    // Curves are sampled at the plan’s frequencies as well: that is all that differs.
    for (const part of ['p1', 'p99'] as const)
      expect(Math.abs(reading![part] - own[r]![part])).toBeLessThan(
        1e-3 * Math.max(1, Math.abs(own[r]![part])),
      );
  });
});

test('what was read at spots is a take, from two on', () => {
  const spots = [{ hz: 100 }, { hz: 1000 }, { hz: 5000 }];
  const reads = { [spotStep(spots[0])]: -0.1, [spotStep(spots[2])]: -13, 'rest-A1': 0.001 };
  expect(takeOfSpots(spots, reads)).toEqual({ frequenciesHz: [100, 5000], levelDb: [-0.1, -13] });
  expect(takeOfSpots(spots, { [spotStep(spots[0])]: 0 })).toBeNull();
  expect(takeOfSpots(spots, reads, 'w2/')).toBeNull();
});
