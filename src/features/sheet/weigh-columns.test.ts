import { askSchema, type Ask } from '@/core/design/ask';
import { candidatesOf } from '@/core/weigh/candidates';
import { DEFAULT_PRICES } from '@/core/weigh/prices';
import { weighOne, type WeighRow } from '@/core/weigh/weigh';
import { weighColumns, weighedCandidates, weighedRows, type Weighed } from './weigh-columns';
import { COLUMN_GROUPS, FIGURES } from './weigh-figures';

/** One ask of every kind. */
const ASKS: Partial<Ask>[] = [
  { kind: 'low-pass', order: 3, edgeHz: 1000 },
  { kind: 'high-pass', limits: { passHz: 1000, passDb: 1, stopHz: 400, stopDb: 30 } },
  { kind: 'band-pass', order: 2, centreHz: 800, q: 3 },
  { kind: 'band-stop', order: 2, centreHz: 800, q: 1 },
  { kind: 'wide-band', order: 2, lowerHz: 300, upperHz: 3400 },
  { kind: 'notch', centreHz: 50, q: 2 },
  { kind: 'peak', centreHz: 900, q: 2, gainDb: 6 },
  { kind: 'low-shelf', edgeHz: 200, gainDb: 6 },
  { kind: 'high-shelf', edgeHz: 4000, gainDb: -6 },
  { kind: 'tilt', edgeHz: 700, gainDb: 4 },
  { kind: 'all-pass', edgeHz: 700, order: 2 },
];
const OPTIONS = { mark: 'point', prices: DEFAULT_PRICES } as const;
const keys = (weighed: Weighed, group: (typeof COLUMN_GROUPS)[number]['value'] | null = null) =>
  weighColumns(weighed, { ...OPTIONS, group }).map((c) => String(c.key));

describe.each(ASKS.map((a) => [a.kind!, a] as const))('weighing a %s', (_, fields) => {
  const candidates = candidatesOf(askSchema.parse(fields), { most: 12 });
  const rows = candidates
    .map((c) => weighOne(c, { boards: 4 }))
    .filter((r): r is WeighRow => 'name' in r);
  const before = keys(weighedCandidates(candidates));
  const after = keys(weighedRows(rows));

  test('no column comes while rows arrive, and every figure that a row has is shown', () => {
    expect(rows.length).toBeGreaterThan(0);
    expect(after.filter((key) => !before.includes(key))).toEqual([]);
    for (const { title, value } of FIGURES) {
      const some = rows.some((r) => value(r, DEFAULT_PRICES) !== null);
      expect([title, after.includes(title)]).toEqual([title, some]);
    }
  });

  test('the groups together are all columns', () => {
    const grouped = COLUMN_GROUPS.flatMap(({ value }) => keys(weighedRows(rows), value));
    expect(new Set(grouped)).toEqual(new Set(after));
  });

  test('what the table can be narrowed to is what its rows are', () => {
    const names = weighedCandidates(candidates).names;
    for (const row of rows) expect(names).toContain(row.name);
  });
});
