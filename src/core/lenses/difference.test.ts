import { AcAnalysis } from '@/core/analysis/ac/ac';
import { levelsDb } from '@/core/response/response';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { demoMade } from '@/testing/demo';
import { newSheet } from '@/testing/open-sheet';
import { makeStage } from '@/core/sheet/make';
import { withValue } from '@/core/sheet/stage';
import type { Sheet } from '@/core/sheet/schema';
import { topologyOf } from '@/core/topologies';
import { differenceLens } from './difference';

const HZ = 1000;

/** One RC low-pass with its corner at 1 kHz, read at its corner. */
const rcSheet = (change: Partial<Sheet> = {}, resistor = 1): Sheet => {
  const sheet = newSheet();
  const made = makeStage('s1', topologyOf('rc-low-pass'), { f0Hz: HZ }, sheet.parts, 'hand');
  const exact = topologyOf('rc-low-pass').design({ f0Hz: HZ }, { farads: made.farads });
  const stage = withValue(withValue(made, 'R1', exact.R1 * resistor), 'C1', exact.C1);
  const to = { is: 'load', name: 'Load', ohms: null, farads: null } as const;
  return {
    ...sheet,
    ways: [{ ...sheet.ways[0], stages: [stage], to }],
    source: { name: 'Source', ohms: 0, volts: 1 },
    readings: [{ id: 'r', measure: { measure: 'level', atHz: HZ } }],
    ...change,
  };
};

test('one term alone is the whole difference, as the closed form says', async () => {
  const { terms, whole } = await differenceLens(rcSheet({}, 1.1));
  expect(terms.map((t) => t.truth)).toEqual(['values']);
  const want = -10 * Math.log10((1 + 1.1 ** 2) / 2);
  expect(terms[0].readings.r).toBeCloseTo(want, 9);
  expect(whole.readings.r).toBeCloseTo(want, 9);
});

test('a load is a term; a path as it was designed has none', async () => {
  expect((await differenceLens(rcSheet())).terms).toEqual([]);
  const sheet = rcSheet();
  const ohms = sheet.ways[0].stages[0].parts.R1.value!;
  const to = { is: 'load', name: 'Load', ohms, farads: null } as const;
  const loaded = { ...sheet, ways: [{ ...sheet.ways[0], to }] };
  const { terms } = await differenceLens(loaded);
  expect(terms.map((t) => t.truth)).toEqual(['load']);
  // Half the voltage, with a corner an octave up.
  const want = 20 * Math.log10(0.5 / Math.hypot(1, 0.5)) - 20 * Math.log10(1 / Math.SQRT2);
  expect(terms[0].readings.r).toBeCloseTo(want, 9);
});

test('what two terms do only together is divided evenly', async () => {
  const sheet = rcSheet({ source: { name: 'S', ohms: 1000, volts: 1 } });
  const to = { is: 'load', name: 'Load', ohms: 1000, farads: null } as const;
  const through = { ...sheet, ways: [{ ...sheet.ways[0], stages: [], to }] };
  const { terms } = await differenceLens(through);
  // Neither a source’s resistance nor a load loses anything by itself; together they halve.
  expect(terms.map((t) => t.truth).sort()).toEqual(['load', 'source']);
  for (const { readings } of terms) expect(readings.r).toBeCloseTo(-10 * Math.log10(2), 6);
});

test.each(
  demoMade('2026-11-24T08:00:00.000Z')
    .filter((s) => !s.crossover)
    .filter((s) => !s.bank)
    .map((s) => [s.title, s]),
)('terms of “%s” add up to what the solver finds between built and ideal', async (_, sheet) => {
  const { terms, whole, frequenciesHz } = await differenceLens(sheet);
  const level = (version: 'ideal' | 'built') =>
    levelsDb(new AcAnalysis(pathCircuit(sheet, 0, version)).voltage('out', frequenciesHz));
  const [built, ideal] = [level('built'), level('ideal')];
  frequenciesHz.forEach((_hz, k) => {
    const sum = terms.reduce((s, t) => s + t.levelDb[k], 0);
    expect(Math.abs(sum - (built[k] - ideal[k]))).toBeLessThan(0.001);
    expect(Math.abs(sum - whole.levelDb[k])).toBeLessThan(1e-9);
  });
  for (const { id } of sheet.readings) {
    const sum = terms.reduce((s, t) => s + t.readings[id], 0);
    expect(Math.abs(sum - whole.readings[id])).toBeLessThan(
      1e-9 * Math.max(1, Math.abs(whole.readings[id]), 1e4),
    );
  }
});
