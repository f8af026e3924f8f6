import { evenly } from '../tune/measure';
import { levelTableSchema, measuredFault } from '../measured';
import { meetingShift, smoothed, workedLevel } from './work';

const hz = Array.from(evenly(20, 20_000, 301));
const table = (levelDb: number[], more: object = {}) =>
  levelTableSchema.parse({ frequenciesHz: hz, levelDb, ...more });

test('smoothing leaves what is even, and lets the mean of what is not', () => {
  for (const db of smoothed(
    hz,
    hz.map(() => 84),
    3,
  ))
    expect(db).toBeCloseTo(84, 9);
  const comb = hz.map((_, i) => (i % 2 ? 80 : 90));
  const mean = 10 * Math.log10((1e8 + 1e9) / 2);
  smoothed(hz, comb, 3)
    .slice(10, -10)
    .forEach((db) => expect(Math.abs(db - mean)).toBeLessThan(0.5));
});

test('tables are shifted and joined where they are used, and stay as they were measured', () => {
  const far = table(
    hz.map(() => 86),
    { shiftDb: -2 },
  );
  expect(workedLevel(far).levelDb.every((db) => db === 84)).toBe(true);
  const near = { frequenciesHz: hz.slice(0, 120), levelDb: hz.slice(0, 120).map(() => 100) };
  const joinHz = 200;
  const shiftDb = meetingShift(far, near, joinHz);
  expect(shiftDb).toBe(-14);
  const joined = { ...far, shiftDb: 0, below: { ...near, joinHz, shiftDb } };
  expect(measuredFault({ level: joined })).toBeNull();
  const { frequenciesHz, levelDb } = workedLevel(joined);
  expect(levelDb.every((db) => db === 86)).toBe(true);
  expect(frequenciesHz).toEqual([...new Set(frequenciesHz)].sort((a, b) => a - b));
  expect(joined.levelDb).toHaveLength(hz.length);
  expect(measuredFault({ level: { ...joined, below: { ...joined.below, joinHz: 1 } } })).toBeNull();
  const apart = { ...joined, frequenciesHz: [20, 30], levelDb: [1, 2] };
  const nothing = {
    ...apart,
    below: { ...near, frequenciesHz: [500, 600], levelDb: [1, 2], joinHz: 100, shiftDb: 0 },
  };
  expect(measuredFault({ level: nothing })).toEqual({
    path: 'level.below',
    message: 'leaves fewer than two rows where it is joined',
  });
});
