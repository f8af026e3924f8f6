import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { demoDrivers } from '@/core/demo/drivers';
import type { Ask } from '@/core/design/ask';
import { readSheet } from '@/core/sheet/read';
import { withDrivers } from '@/core/sheet/references';
import { redesign } from '@/core/sheet/make';
import type { Sheet } from '@/core/sheet/schema';
import { valuesOf, withValues } from '@/core/sheet/stage';
import { hasTopology, topologyOf } from '@/core/topologies';
import { LESSONS, lessonOf } from './index';
import { otherWayRound } from './speakers';

const AT = '2026-11-28T10:00:00.000Z';
const drivers = demoDrivers();
/** With the curves of its drivers, as the program solves it. */
const solved = (sheet: Sheet) => (sheet.crossover ? withDrivers(sheet, drivers) : sheet);
/** As it comes back from where sheets are stored. */
const begun = (id: string) => {
  const made = lessonOf(id).begin(`${id}-sheet`, AT);
  return solved(readSheet(JSON.parse(JSON.stringify(made))));
};

const valued = (sheet: Sheet, values: Record<string, number>, stage = 0): Sheet => ({
  ...sheet,
  ways: [
    {
      ...sheet.ways[0],
      stages: sheet.ways[0].stages.map((s, i) => (i === stage ? withValues(s, values) : s)),
    },
  ],
});
const scaled = (sheet: Sheet, factors: Record<string, number>, stage = 0): Sheet => {
  const now = valuesOf(sheet.ways[0].stages[stage]);
  return valued(
    sheet,
    Object.fromEntries(Object.entries(factors).map(([id, by]) => [id, now[id] * by])),
    stage,
  );
};
const asked = (sheet: Sheet, change: Partial<Ask>): Sheet => {
  const ask = { ...sheet.ask, ...change };
  return { ...sheet, ask, ways: [redesign(sheet.ways[0], ask, sheet.parts)] };
};
const designed =
  (topology: string, figures: Parameters<ReturnType<typeof topologyOf>['design']>[0]) =>
  (sheet: Sheet) =>
    valued(sheet, { ...topologyOf(topology).design(figures) });

/** How each is done, as its own words say. */
const DONE: Readonly<Record<string, (sheet: Sheet) => Sheet>> = {
  'rc-edge': (s) => scaled(s, { R1: 1592 / 500 }),
  'rc-load': (s) => scaled(s, { R1: 0.1, C1: 10 }),
  joint: (s) => scaled(s, { R1: 10, C1: 0.1 }, 1),
  order: (s) => asked(s, { order: 5 }),
  'unity-stage': designed('unity-low-pass', { f0Hz: 2000, q: 1.5 }),
  'multiple-feedback': designed('multiple-feedback-band-pass', { f0Hz: 1500, q: 5, gain: -1 }),
  'op-amp': (s) => ({ ...s, parts: { ...s.parts, opAmp: { ...OP_AMPS[0] } } }),
  arrangements: (s) => asked(s, { topology: 'multiple-feedback-low-pass' }),
  harmonics: (s) => asked(s, { order: 8, edgeHz: 680, shape: 'chebyshev', rippleDb: 0.5 }),
  notch: (s) => {
    const { R1, C1 } = valuesOf(s.ways[0].stages[0]);
    return { ...s, ways: [exactTwinT(s, R1, C1)] };
  },
  'positive-feedback': designed('equal-part-low-pass', { f0Hz: 1000, q: 2 }),
  'state-variable': designed('state-variable-low-pass', { f0Hz: 1000, q: 4, gain: -2 }),
  'two-integrator': designed('two-integrator-low-pass', { f0Hz: 1000, q: 3, gain: 2 }),
  polarity: otherWayRound,
  singing: (s) => sung(s),
};

/** The twin T with the values that its topology asks for, not the nearest of a row. */
function exactTwinT(sheet: Sheet, _ohms: number, farads: number): Sheet['ways'][0] {
  const [way] = sheet.ways;
  const [stage] = way.stages;
  const exact = topologyOf('twin-t-notch').design({ ...stage.target!, f0Hz: 50 }, { farads });
  return { ...way, stages: [withValues(stage, exact)] };
}

/** Both controls where a hand would come to leave them. */
const sung = (sheet: Sheet): Sheet => ({
  ...sheet,
  controls: sheet.controls.map((c) => ({ ...c, at: c.for === 'cut-off' ? 0.45 : 0.85 })),
});

test.each(LESSONS.map((l) => [l.id, l] as const))(
  '%s begins on a sound sheet that does not meet its goals, and is met as its words say',
  (id, lesson) => {
    const sheet = begun(id);
    const before = lesson.goals(sheet, sheet);
    expect(before.filter((g) => !g.met).length).toBeGreaterThan(0);
    expect(before.every((g) => g.is !== '' && !g.is.includes('NaN'))).toBe(true);
    const after = lesson.goals(DONE[id](sheet), lesson.begin(sheet.id, AT));
    expect(after.filter((g) => !g.met)).toEqual([]);
    if (lesson.topology) expect(hasTopology(lesson.topology)).toBe(true);
  },
);

test('each has words of its own, and there is one from each chapter', () => {
  for (const words of ['id', 'title', 'question', 'see', 'because'] as const)
    expect(new Set(LESSONS.map((l) => l[words])).size).toBe(LESSONS.length);
  expect(new Set(LESSONS.map((l) => l.chapter)).size).toBe(5);
  expect(() => lessonOf('none')).toThrow('There is no lesson “none”');
});

test.each([
  ['rc-edge', (s: Sheet) => scaled(s, { C1: 1592 / 500 }), 'C1 as it was'],
  ['rc-load', (s: Sheet) => withoutLoad(s), 'The input as it is: 10 kΩ'],
  [
    'op-amp',
    (s: Sheet) => ({
      ...s,
      parts: { ...s.parts, opAmp: { name: 'none', model: 'ideal' as const } },
    }),
    'A real op-amp',
  ],
  [
    'state-variable',
    (s: Sheet) => ({ ...s, ways: [{ ...s.ways[0], stages: [] }] }),
    'The circuit as it is drawn',
  ],
])('%s is not met by going around it', (id, around, unmet) => {
  const sheet = begun(id);
  const goals = lessonOf(id).goals(around(sheet), sheet);
  expect(goals.find((g) => g.what === unmet)?.met).toBe(false);
});

const withoutLoad = (s: Sheet): Sheet => ({
  ...s,
  ways: [{ ...s.ways[0], to: { is: 'load', name: 'Input', ohms: null, farads: null } }],
});

test('weights of a loop: each block names parts of its circuit, and together all that set its figures', () => {
  for (const id of ['state-variable', 'two-integrator']) {
    const topology = topologyOf(lessonOf(id).topology!);
    const { row, back } = topology.blocks!;
    const named = new Set([...row, ...back].flatMap((b) => b.parts ?? []));
    const values = topology.design({ f0Hz: 1000, q: 2 });
    const were = topology.figures(values);
    for (const part of Object.keys(values)) {
      const are = topology.figures({ ...values, [part]: values[part] * 1.1 });
      const moves = ['f0Hz', 'q', 'gain'].some(
        (f) => Math.abs((are[f as 'q'] ?? 1) / (were[f as 'q'] ?? 1) - 1) > 1e-6,
      );
      expect([part, named.has(part)]).toEqual([part, moves || named.has(part)]);
    }
  }
});
