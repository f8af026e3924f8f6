import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import { fitted } from '@/core/fit/fit-circuit';
import { spaced } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { newSheet } from '@/testing/open-sheet';
import { SheetEvaluator } from './evaluate';
import { fitWay, type Towards } from './fit-way';
import { stageOfCircuit } from './own-stage';
import { pathCircuit } from './path-circuit';
import { outNet } from './nets';
import type { Reading, Sheet } from './schema';

/** Two RC sections that load each other, drawn by hand. */
function circuit(R1: number, C1: number, R2: number, C2: number): Circuit {
  return {
    format: 'jaunty-reed/circuit',
    title: 'Two sections',
    version: 1,
    ground: '0',
    parts: [
      { id: 'R1', kind: 'resistor', a: 'in', b: 'm', ohms: R1 },
      { id: 'C1', kind: 'capacitor', a: 'm', b: '0', farads: C1 },
      { id: 'R2', kind: 'resistor', a: 'm', b: 'out', ohms: R2 },
      { id: 'C2', kind: 'capacitor', a: 'out', b: '0', farads: C2 },
    ],
  };
}

const reading = (id: string, measure: Reading['measure'], wanted: Reading['wanted']): Reading => ({
  id,
  measure,
  wanted,
});

function ownSheet(values: [number, number, number, number], readings: Reading[] = []): Sheet {
  const base = newSheet();
  const stage = stageOfCircuit(circuit(...values), { id: 's1' });
  const to = { is: 'load', name: 'Load', ohms: null, farads: null } as const;
  return {
    ...base,
    ways: [{ ...base.ways[0], stages: [stage], to }],
    source: { name: 'Source', ohms: 0, volts: 1 },
    readings,
  };
}

const EDGE = {
  measure: 'edge',
  downDb: 3.0103,
  side: 'upper',
  reference: { from: 'plateau' },
} as const;
const START: [number, number, number, number] = [10e3, 10e-9, 10e3, 10e-9];
const read = (sheet: Sheet) =>
  new SheetEvaluator().evaluate(sheet).readings.map(({ results }) => {
    const { built } = results;
    return built && 'measured' in built ? built.measured.value : NaN;
  });
const fitTo = (sheet: Sheet, towards?: Towards) => {
  const {
    nearest,
    fitted: way,
    result,
  } = fitted(fitWay(sheet, { ...(towards ? { towards } : {}) }));
  return { sheet: { ...sheet, ways: [way] }, rounded: { ...sheet, ways: [nearest] }, result };
};

test('an own circuit is left alone unless there is something that it is to come near to', () => {
  const sheet = ownSheet(START);
  expect(fitTo(sheet).sheet).toEqual(sheet);
});

test('an own circuit is brought to its readings, far from where it was drawn, with parts that can be had', () => {
  const sheet = ownSheet(START, [
    reading('r1', EDGE, { is: 'near', value: 2500, tolerance: 0.02, relative: true }),
    reading('r2', { measure: 'level', atHz: 20_000 }, { is: 'at-most', value: -24 }),
  ]);
  expect(read(sheet)[0]).toBeLessThan(1000);
  const { sheet: after, result } = fitTo(sheet, { is: 'readings' });
  const [edge, level] = read(after);
  expect(edge / 2500).toBeGreaterThan(0.98);
  expect(edge / 2500).toBeLessThan(1.02);
  expect(level).toBeLessThanOrEqual(-24);
  expect(result!.fitted.missed).toBe(0);
  const { parts } = after.ways[0].stages[0];
  expect(Object.values(parts).every((p) => p.chosen === 'fit')).toBe(true);
});

test('an own circuit is brought to a curve, nearer than by rounding', () => {
  const wanted = ownSheet([4700, 33e-9, 22e3, 2.2e-9]);
  const frequenciesHz = spaced(50, 20_000, 60);
  const probe = outNet(wanted);
  const levelDb = levelsDb(
    new AcAnalysis(pathCircuit(wanted, 0, 'built')).voltage(probe, frequenciesHz),
  );
  const curve = { frequenciesHz, levelDb };
  const { sheet, rounded, result } = fitTo(ownSheet(START), { is: 'curve', curve });
  const worst = (of: Sheet) => {
    const found = levelsDb(
      new AcAnalysis(pathCircuit(of, 0, 'built')).voltage(probe, frequenciesHz),
    );
    return found.reduce((most, db, k) => Math.max(most, Math.abs(db - levelDb[k])), 0);
  };
  expect(worst(ownSheet(START))).toBeGreaterThan(3);
  expect(worst(sheet)).toBeLessThan(0.25);
  expect(worst(sheet)).toBeLessThanOrEqual(worst(rounded));
  expect(result!.fitted.worstDb).toBeCloseTo(worst(sheet), 1);
});

test('a curve beside the picture is refused in words', () => {
  const curve = { frequenciesHz: [1e6, 2e6], levelDb: [0, 0] };
  expect(() => fitTo(ownSheet(START), { is: 'curve', curve })).toThrow(
    /no two points within the picture/,
  );
});
