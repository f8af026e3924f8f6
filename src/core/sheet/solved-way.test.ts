import fc from 'fast-check';
import { demoMade } from '@/testing/demo';
import { LOW_PASS, newSheet } from '@/testing/open-sheet';
import { SheetEvaluator } from './evaluate';
import type { Sheet } from './schema';

/** Every curve begins and ends where the picture does, and its frequencies rise between. */
function expectWhole(sheet: Sheet): void {
  const { fromHz, toHz } = sheet.view;
  for (const { trace } of new SheetEvaluator().evaluate(sheet).layers) {
    const { frequenciesHz, levelDb, phaseDegrees } = trace;
    expect(frequenciesHz[0] / fromHz).toBeCloseTo(1, 7);
    expect(frequenciesHz[frequenciesHz.length - 1] / toHz).toBeCloseTo(1, 7);
    expect(frequenciesHz.every((hz, k) => k === 0 || hz > frequenciesHz[k - 1])).toBe(true);
    expect([levelDb.length, phaseDegrees.length]).toEqual([
      frequenciesHz.length,
      frequenciesHz.length,
    ]);
  }
}

test.each(demoMade('2026-11-23T08:00:00.000Z').filter((s) => !s.bank))(
  'the curves of $id span the whole picture',
  expectWhole,
);

test('so they do over any span', () => {
  const sheet = newSheet(LOW_PASS);
  const hertz = fc.double({ min: 0.01, max: 1e5, noNaN: true });
  fc.assert(
    fc.property(hertz, fc.double({ min: 1.5, max: 1e5, noNaN: true }), (fromHz, ratio) =>
      expectWhole({ ...sheet, view: { ...sheet.view, fromHz, toHz: fromHz * ratio } }),
    ),
    { numRuns: 40 },
  );
});

test('and over round ones, which lie on the grid but for rounding', () => {
  const sheet = newSheet(LOW_PASS);
  for (const lead of [1, 2, 5])
    for (const decade of [-1, 0, 1, 2, 3])
      for (const toHz of [1e4, 2e4, 5e4, 1e5])
        expectWhole({
          ...sheet,
          view: { ...sheet.view, fromHz: Number(`${lead}e${decade}`), toHz },
        });
});
