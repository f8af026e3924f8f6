import fc from 'fast-check';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { makeSheet } from '@/core/sheet/make';
import { drawnParts, withValue } from '@/core/sheet/stage';
import { demoMade } from '@/testing/demo';
import { AT, LOW_PASS } from '@/testing/open-sheet';
import { changeWords, reversed, type Change } from './change';
import { changesBetween } from './differences';
import { figuresBetween, figuresOf } from './figures';
import { namesOfEntries } from './names';

const SHEET = makeSheet({ id: 'test', title: 'On the bench', ask: LOW_PASS, at: AT });
const DEMO = demoMade(AT);

const withFirst = (sheet: Sheet, change: (stage: Stage) => Stage): Sheet => {
  const [way, ...ways] = sheet.ways;
  const [stage, ...stages] = way.stages;
  return { ...sheet, ways: [{ ...way, stages: [change(stage), ...stages] }, ...ways] };
};
const words = (before: Sheet, after: Sheet) => changesBetween(before, after).map(changeWords);

test('a value is told by the name that stands on the drawing, and what it is made of', () => {
  const once = withFirst(SHEET, (s) => withValue(s, 'C2', 22e-9));
  const pair = withFirst(once, (s) => ({
    ...s,
    parts: {
      ...s.parts,
      C2: { ...s.parts.C2, value: 20e-9, made: { how: 'parallel', of: [10e-9, 10e-9] } },
    },
  }));
  expect(words(once, pair)).toEqual(['C2 22n → 2 × 10n']);
  expect(words(pair, once)).toEqual(['C2 2 × 10n → 22n']);
  // Parts of later stages are numbered on.
  const [way] = SHEET.ways;
  const second = { ...way, stages: [way.stages[0], withValue(way.stages[1], 'R1', 4700)] };
  expect(words(SHEET, { ...SHEET, ways: [second] })[0]).toMatch(/^R3 .* → 4k7$/);
});

test('what was asked, kept, wanted, built and measured is each said in its words', () => {
  const after: Sheet = {
    ...SHEET,
    title: 'Speech',
    ask: { ...SHEET.ask, edgeHz: 3200 },
    source: { ...SHEET.source, ohms: 600 },
    readings: SHEET.readings.slice(1),
    keeps: [{ id: 'k1', name: 'first try', at: AT, shown: true, design: SHEET }],
    boards: [{ id: 'b7', name: 'Seven', values: { 'w1/s1/C1': 9.7e-9 }, takes: ['t1'], note: '' }],
  };
  const entries = namesOfEntries({
    takes: [{ id: 't1', name: 'sweep of board 7' }],
    drivers: [],
    drawer: [],
  });
  const told = changesBetween(SHEET, after, entries).map(changeWords);
  expect(told).toEqual(
    expect.arrayContaining([
      'Name of the sheet “On the bench” → “Speech”',
      'Ask: edge 3.4\u00a0kHz → 3.2\u00a0kHz',
      'Keep: “first try” added',
      'Source: ohms 0\u00a0Ω → 600\u00a0Ω',
      'Board “Seven” added',
      'Board “Seven”: take: “sweep of board 7” added',
      'Board “Seven”: C1 as on the sheet → 9n7',
    ]),
  );
  expect(told.some((w) => /^Reading “.*wanted .* removed$/.test(w))).toBe(true);
  expect(told).toHaveLength(8);
});

test('stages that come, go, move and are passed over', () => {
  const [way] = SHEET.ways;
  const [a, b] = way.stages;
  const of = (stages: Stage[]): Sheet => ({ ...SHEET, ways: [{ ...way, stages }] });
  expect(words(SHEET, of([a]))).toEqual([expect.stringMatching(/^stage 2 .*R1 .*removed$/)]);
  expect(words(of([b]), SHEET)).toEqual([expect.stringMatching(/^stage 1 .*added$/)]);
  expect(words(SHEET, of([b, a]))).toEqual([expect.stringMatching(/^Order of stages/)]);
  expect(words(SHEET, of([a, { ...b, bypassed: true }]))).toEqual([
    expect.stringMatching(/^stage 2 .*bypassed no → yes$/),
  ]);
});

test.each(DEMO.map((sheet) => [sheet.title, sheet] as const))(
  '%s is like itself, and like nothing else',
  (_, sheet) => {
    expect(changesBetween(sheet, structuredClone(sheet))).toEqual([]);
    const other = DEMO[(DEMO.indexOf(sheet) + 1) % DEMO.length];
    expect(changesBetween(sheet, other).length).toBeGreaterThan(3);
  },
);

/** Every place of a document where a number, a text or a truth stands. */
function places(of: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof of !== 'object' || of === null) return of === null ? [] : [path];
  return Object.entries(of).flatMap(([key, one]) =>
    key === 'id' ? [] : places(one, [...path, Array.isArray(of) ? Number(key) : key]),
  );
}

function changedAt(document: unknown, path: (string | number)[]): unknown {
  const copy = structuredClone(document) as Record<string, unknown>;
  let at = copy as Record<string | number, unknown>;
  for (const step of path.slice(0, -1)) at = at[step] as Record<string | number, unknown>;
  const last = path.at(-1)!;
  const old = at[last];
  at[last] =
    typeof old === 'number'
      ? old * (1 + 1e-9) + 1e-15
      : typeof old === 'boolean'
        ? !old
        : `${String(old)} x`;
  return copy;
}

/** Parts that a stage keeps figures of without drawing them bear on nothing. */
const isDrawn = (sheet: Sheet, path: (string | number)[]) => {
  if (path[0] !== 'ways' || path[2] !== 'stages' || path[4] !== 'parts') return true;
  const stage = sheet.ways[path[1] as number].stages[path[3] as number];
  return drawnParts(stage).some((p) => p.id === path[5]);
};

test('no field of a sheet can change without being told', () => {
  const all = DEMO.flatMap((sheet) =>
    (
      [
        'ask',
        'parts',
        'source',
        'ways',
        'readings',
        'controls',
        'boards',
        'bank',
        'crossover',
      ] as const
    )
      .flatMap((field) => places(sheet[field] ?? null, [field]))
      // Drawings, kinds and circuits are checked by name elsewhere: another word there is no drawing.
      .filter(
        (path) =>
          !path.some((p) =>
            [
              'drawing',
              'topology',
              'kind',
              'is',
              'measure',
              'cell',
              'stage',
              'port',
              'way',
            ].includes(String(p)),
          ),
      )
      .filter((path) => isDrawn(sheet, path))
      .map((path) => ({ sheet, path })),
  );
  fc.assert(
    fc.property(fc.constantFrom(...all), ({ sheet, path }) => {
      const after = changedAt(sheet, path) as Sheet;
      const there = changesBetween(sheet, after);
      expect(there.length).toBeGreaterThan(0);
      for (const { what, before, after } of there) {
        expect(what).toMatch(/\w/);
        expect(before).not.toBe(after);
      }
      // The way back says the same things the other way round.
      const back = changesBetween(after, sheet).map(reversed);
      const key = ({ before, after }: Change) => `${before} ${after}`;
      expect(back.map(key).sort()).toEqual(there.map(key).sort());
    }),
    { numRuns: 600, seed: 5 },
  );
});

describe('figures', () => {
  test('are those that the sheet itself shows, of both states', () => {
    const after = withFirst(SHEET, (s) => withValue(s, 'R1', 1.2 * s.parts.R1.value!));
    const both = figuresBetween(SHEET, after);
    expect(both.map((f) => f.before)).toEqual(figuresOf(SHEET).map((f) => f.value));
    expect(both.map((f) => f.after)).toEqual(figuresOf(after).map((f) => f.value));
    expect(both.some((f) => f.before !== f.after)).toBe(true);
  });

  test('readings of one side alone stand with nothing beside them', () => {
    const less = { ...SHEET, readings: SHEET.readings.slice(1) };
    const gone = figuresBetween(SHEET, less).at(-1)!;
    expect(gone).toMatchObject({ after: null, words: { after: 'none' } });
    expect(gone.before).not.toBeNull();
  });
});
