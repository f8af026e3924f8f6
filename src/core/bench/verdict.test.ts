import fc from 'fast-check';
import { seededRandom } from '@/core/random';
import type { Sheet } from '@/core/sheet/schema';
import { spreadOfSheet } from '@/core/sheet/spread-sheet';
import { newSheet } from '@/testing/open-sheet';
import { measureRigBoard } from './rig-board';
import { readBoards } from './take-readings';
import { awayBy, isOutside, oddest } from './verdict';

const LIMITS = { p1: -1, p50: 0, p99: 1 };

test('a reading is outside when neither tolerances nor its noise explain it', () => {
  expect(isOutside(1.01, 0, LIMITS)).toBe(true);
  expect(isOutside(1.01, 0.1, LIMITS)).toBe(false);
  expect(isOutside(-1.5, 0.1, LIMITS)).toBe(true);
  fc.assert(
    fc.property(
      fc.double({ min: -9, max: 9, noNaN: true }),
      fc.double({ min: 0, max: 2, noNaN: true }),
      (v, noise) => {
        // Noise only ever excuses.
        if (isOutside(v, noise, LIMITS)) expect(isOutside(v, noise / 2, LIMITS)).toBe(true);
        expect(awayBy(v, noise, LIMITS)).toBeCloseTo(awayBy(-v, noise, LIMITS), 12);
      },
    ),
  );
});

test('one board of many is odd when it stands out', () => {
  expect(oddest([[0.5], [9], [1.2]])).toBe(1);
  expect(oddest([[0.5], [2], [1.2]])).toBeNull();
  expect(oddest([[9], [8.5]])).toBeNull();
  expect(oddest([[9]])).toBeNull();
  expect(oddest([[], [4]])).toBe(1);
});

describe('sound boards that are measured with noise', () => {
  const open = newSheet();
  const sheet: Sheet = {
    ...open,
    readings: [
      ...open.readings,
      { id: 'high', measure: { measure: 'peak-level' } },
      { id: 'low', measure: { measure: 'level', atHz: 6800 } },
    ],
  };
  const run = spreadOfSheet(sheet, { boards: 300, seed: 1, drawer: [] });
  while (run.drawn < 300) run.draw(100);
  const { readings } = run.result(false);
  const board = { id: 'b', name: 'b', values: {}, takes: [], note: '' };
  const random = seededRandom(8);
  const takes = Array.from({ length: 12 }, () =>
    measureRigBoard(sheet, { seed: Math.floor(1e6 * random()), fault: '', noiseDb: 0.3 }),
  );
  const found = readBoards(
    sheet,
    takes.map((take) => ({ board, take })),
  );

  test('are seldom marked, and would be often if noise did not count', () => {
    const marked = (share: number) =>
      found.reduce(
        (sum, { values, noise }) =>
          sum +
          values.filter(
            (v, r) =>
              v !== null && readings[r] && isOutside(v, share * (noise[r] ?? 0), readings[r]),
          ).length,
        0,
      );
    const all = found.reduce((sum, { values }) => sum + values.filter((v) => v !== null).length, 0);
    expect(all).toBeGreaterThan(30);
    expect(marked(1)).toBeLessThanOrEqual(0.06 * all);
    expect(marked(0)).toBeGreaterThan(2 * marked(1));
  });
});
