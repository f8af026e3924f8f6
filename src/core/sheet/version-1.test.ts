import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SheetEvaluator } from './evaluate';
import { readSheet } from './read';
import { salvageSheet } from './salvage';

/*
 * Sheets of version 1 with what the last program that wrote them read off them: the demo's, paths
 * put together by hand with keeps, and a bank behind a source with a resistance.
 */

interface Kept {
  sheet: { id: string; ways: { stages: unknown[] }[] };
  readings: Record<string, Record<string, number | string>>;
  joints: number[];
  peaks: (number | null)[];
  problems: string[];
}

const KEPT = JSON.parse(
  readFileSync(join(__dirname, '../fixtures/sheets-version-1.json'), 'utf8'),
) as Kept[];
const AT = '2026-11-25T08:00:00.000Z';

test.each(KEPT.map((k) => [k.sheet.id, k] as const))(
  '%s opens with the readings it had',
  (_, { sheet, readings, joints, peaks, problems }) => {
    const read = readSheet(sheet);
    const found = new SheetEvaluator().evaluate(read);
    expect(found.problems).toEqual(problems);
    for (const { id, results } of found.readings) {
      expect(Object.keys(results)).toEqual(Object.keys(readings[id]));
      for (const [layer, result] of Object.entries(results)) {
        const before = readings[id][layer];
        if (typeof before === 'string') expect(result).toEqual({ error: before });
        else {
          const value = result && 'measured' in result ? result.measured.value : NaN;
          expect(Math.abs(value - before)).toBeLessThanOrEqual(
            1e-6 * Math.max(1, Math.abs(before)),
          );
        }
      }
    }
    found.joints.forEach((joint, j) => expect(joint.lossDb).toBeCloseTo(joints[j], 6));
    found.stages.forEach((stage, s) => {
      const peakDb = found.peaksDb[stage.id];
      if (peaks[s] === null) expect(peakDb).toBeUndefined();
      // Heights along the way were, and are, found to a hundredth of a decibel.
      else expect(Math.abs(peakDb - Number(peaks[s]))).toBeLessThan(0.01);
    });
  },
);

test('what is read of them is written in version 2 and reads back', () => {
  for (const { sheet } of KEPT) {
    const read = readSheet(sheet);
    expect(read.version).toBe(2);
    expect(readSheet(JSON.parse(JSON.stringify(read)))).toEqual(read);
  }
});

test('values that the series had chosen are told from those put in by hand', () => {
  const { sheet } = KEPT.find((k) => k.sheet.id === 'hand-0')!;
  const chosen = readSheet(sheet).ways[0].stages.flatMap((s) =>
    Object.values(s.parts).map((p) => p.chosen),
  );
  expect(new Set(chosen)).toEqual(new Set(['fit', 'hand']));
});

test('a damaged one is salvaged as what it was, with one stage left out', () => {
  const { sheet } = KEPT[1];
  const [way] = sheet.ways;
  const damaged = { ...sheet, ways: [{ ...way, stages: [way.stages[0], { topology: 'teapot' }] }] };
  expect(() => readSheet(damaged)).toThrow(/stages\[1\]/);
  const salvaged = salvageSheet(damaged, 'x', AT);
  expect(salvaged.leftOut).toHaveLength(1);
  expect(salvaged.sheet.ways[0].stages).toEqual(readSheet(sheet).ways[0].stages.slice(0, 1));
  expect(salvaged.sheet.source).toEqual(readSheet(sheet).source);
});
