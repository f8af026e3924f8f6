import fc from 'fast-check';
import { pathCircuit } from './path-circuit';
import { SheetEvaluator, type Evaluation } from './evaluate';
import { gate } from './gate';
import { readSheetFiles } from './file';
import { DRIVER } from '@/core/library/testing';
import { withDrivers } from './references';
import type { Sheet, Stage } from './schema';
import type { ReadingResult } from './solved-way';
import { withValue, valuesOf } from './stage';
import { randomSheet } from './testing/random-sheet';

const SEEDS = { numRuns: 60, seed: 9, endOnFailure: true };
// Seeds, so that a failure names a small number.
const seeds = fc.integer({ min: 1, max: 1e6 });

test('random documents pass the gate and survive writing and reading', () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const sheet = randomSheet(seed);
      gate(sheet);
      const [read] = readSheetFiles(JSON.stringify(sheet));
      expect(read).toHaveProperty('sheet', JSON.parse(JSON.stringify(sheet)));
    }),
    SEEDS,
  );
});

test('evaluation never throws: what cannot be computed is said, and no figure is NaN', () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const sheet = randomSheet(seed);
      for (const way of sheet.ways.keys()) {
        // Now and then the library lacks the loudspeaker.
        const solved = withDrivers(sheet, seed % 3 === 0 ? [] : [DRIVER]);
        const { layers, readings, joints, problems } = new SheetEvaluator().evaluate(solved, way);
        // Every layer is there, or it is said why not.
        expect(layers.length + problems.length).toBeGreaterThanOrEqual(2);
        for (const { trace } of layers) {
          expect(trace.levelDb.every((db) => Number.isFinite(db))).toBe(true);
          expect(trace.phaseDegrees.every((d) => Number.isFinite(d))).toBe(true);
        }
        for (const { results } of readings)
          for (const result of Object.values(results as Record<string, ReadingResult>))
            if ('measured' in result) expect(Number.isFinite(result.measured.value)).toBe(true);
            else expect(result.error).not.toMatch(/undefined|NaN/);
        for (const joint of joints) expect(Number.isNaN(joint.lossDb)).toBe(false);
        for (const problem of problems)
          expect(problem).not.toMatch(/undefined|NaN|is not a (function|constructor)/);
      }
    }),
    SEEDS,
  );
});

/** What a person reads off an evaluation; heights are found to a hundredth of a decibel. */
function figuresOf({ layers, readings, joints, peaksDb, problems }: Evaluation) {
  return {
    layers: layers.map(({ id, trace }) => [id, trace.levelDb[0]]),
    readings: readings.map(({ results }) => results),
    joints,
    heights: Object.entries(peaksDb).map(([id, db]) => [id, Math.round(db * 10) / 10]),
    problems,
  };
}

/** The same up to what searching and rounding leave. */
function expectAlike(a: unknown, b: unknown, at = ''): void {
  if (typeof a === 'number' && typeof b === 'number') {
    if (a === b) return;
    const off = Math.abs(a - b);
    if (!(off <= 1e-6 * Math.max(1, Math.abs(a)))) throw new Error(`${at}: ${a} and ${b}`);
  } else if (typeof a === 'object' && typeof b === 'object' && a !== null && b !== null) {
    expect(Object.keys(a)).toEqual(Object.keys(b));
    for (const key of Object.keys(a))
      expectAlike(a[key as keyof typeof a], b[key as keyof typeof b], `${at}.${key}`);
  } else expect(a).toEqual(b);
}

/** Some edit of the ask or the first way, chosen by a number. */
function edited(sheet: Sheet, n: number): Sheet {
  const [way, ...others] = sheet.ways;
  if (n % 4 === 0) return { ...sheet, ask: { ...sheet.ask, edgeHz: 20 * n } };
  if (way.stages.length === 0) return { ...sheet, source: { ...sheet.source, ohms: 50 * n } };
  const at = n % way.stages.length;
  const change = (stage: Stage): Stage => {
    const parts = Object.entries(valuesOf(stage));
    if (n % 5 === 0 || parts.length === 0) return { ...stage, bypassed: !stage.bypassed };
    const [part, value] = parts[n % parts.length];
    return withValue(stage, part, value * (1 + (n % 7) / 10));
  };
  const stages = way.stages.map((stage, i) => (i === at ? change(stage) : stage));
  return { ...sheet, ways: [{ ...way, stages }, ...others] };
}

test('an evaluator that lived through edits says what a fresh one says', () => {
  fc.assert(
    fc.property(
      seeds,
      fc.array(fc.integer({ min: 1, max: 1000 }), { maxLength: 5 }),
      (seed, edits) => {
        const sheet = randomSheet(seed);
        const lived = new SheetEvaluator();
        lived.evaluate(sheet);
        let now = sheet;
        for (const n of edits) lived.evaluate((now = edited(now, n)));
        expectAlike(figuresOf(lived.evaluate(now)), figuresOf(new SheetEvaluator().evaluate(now)));
      },
    ),
    { ...SEEDS, numRuns: 25 },
  );
});

test('a path without stages is a piece of wire: what drives it is loaded', () => {
  const sheet = randomSheet(1);
  const bare: Sheet = {
    ...sheet,
    controls: [],
    keeps: [],
    source: { ...sheet.source, ohms: 1000 },
    readings: [{ id: 'r', measure: { measure: 'level', atHz: 1000 } }],
    ways: [
      { ...sheet.ways[0], stages: [], to: { is: 'load', name: '', ohms: 9000, farads: null } },
    ],
  };
  expect(pathCircuit(bare, 0, 'built').parts.some((p) => p.kind === 'voltage-amplifier')).toBe(
    false,
  );
  const { readings, joints } = new SheetEvaluator().evaluate(bare);
  const { ideal, built } = readings[0].results;
  expect(ideal).toMatchObject({ measured: { value: 0 } });
  expect(built && 'measured' in built && built.measured.value).toBeCloseTo(20 * Math.log10(0.9), 9);
  expect(joints[0].lossDb).toBeCloseTo(20 * Math.log10(0.9), 9);
});
