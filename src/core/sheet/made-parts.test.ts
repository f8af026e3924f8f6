import type { Drawing } from '@/core/drawing/drawing';
import { fitted } from '@/core/fit/fit-circuit';
import { newSheet } from '@/testing/open-sheet';
import { ownStage } from './own-stage';
import { fitWay } from './fit-way';
import { partsList } from './parts-list';
import { readSheet } from './read';
import type { Sheet, StagePart } from './schema';
import { spreadOfSheet } from './spread-sheet';

const sheet = newSheet();

/** The sheet with something said of R1 of its first stage. */
function withR1(change: Partial<StagePart>, of: Sheet = sheet): Sheet {
  const [way] = of.ways;
  const [first, ...others] = way.stages;
  const parts = { ...first.parts, R1: { ...first.parts.R1, ...change } };
  return { ...of, ways: [{ ...way, stages: [{ ...first, parts }, ...others] }] };
}
const r1 = (of: Sheet) => of.ways[0].stages[0].parts.R1;

/** The sheet with R1 set by a trimmer, fitted. */
function trimmed(): Sheet {
  const asked = withR1({ may: 'trimmer' });
  return { ...asked, ways: [fitted(fitWay(asked)).fitted] };
}

test('a part that may be trimmed is, and stays so when it is fitted again; others are as before', () => {
  const once = trimmed();
  expect(r1(once).made?.how).toBe('trimmer');
  expect(r1(once).may).toBe('trimmer');
  const others = Object.entries(once.ways[0].stages[0].parts).filter(([id]) => id !== 'R1');
  expect(others.every(([, p]) => p.made === undefined)).toBe(true);
  expect(r1({ ...once, ways: [fitted(fitWay(once)).fitted] }).made?.how).toBe('trimmer');
});

test('the parts list buys the fixed part and the trimmer, by its whole track', () => {
  const once = trimmed();
  const [fixed, track] = r1(once).made!.of;
  const { lines } = partsList(once);
  const pot = lines.find((l) => l.kind === 'potentiometer')!;
  expect(pot).toMatchObject({ value: track, each: 1 });
  expect(lines.find((l) => l.kind === 'resistor' && l.value === fixed)).toBeDefined();
});

test('tracks that one knob turns are bought as one part', () => {
  const pot = (id: string): [string, StagePart] => [id, { value: 10e3, chosen: 'hand' }];
  const base = newSheet();
  const [way] = base.ways;
  const empty = ownStage('s9');
  const tracks = ['P1', 'P2', 'P3'];
  const placed = tracks.map((id, i) => ({
    kind: 'potentiometer',
    id,
    at: [4, 8 + 8 * i] as [number, number],
    facing: 'right' as const,
  }));
  const drawing: Drawing = {
    ...empty.drawing!,
    symbols: [...empty.drawing!.symbols, ...placed],
  };
  const stage = { ...empty, drawing, parts: Object.fromEntries(tracks.map(pot)) };
  const move = (part: string) => ({
    ...{ stage: 's9', part, quantity: 'turn', from: 0, to: 1, law: 'even' as const },
  });
  const turned = { id: 'c1', name: 'Cut', is: 'turn' as const, at: 0.5 };
  const listed = (turns: string[]) =>
    partsList({
      ...base,
      ways: [{ ...way, stages: [stage] }],
      controls: [{ ...turned, moves: turns.map(move) }],
    }).lines.map(({ kind, each, names }) => [kind, each, names]);
  expect(listed(['P1'])).toEqual([['potentiometer', 3, ['P1', 'P2', 'P3']]]);
  expect(listed(['P1', 'P3'])).toEqual([
    ['ganged-potentiometer', 1, ['P1', 'P3']],
    ['potentiometer', 1, ['P2']],
  ]);
});

test('what was trimmed is off by what a hand can set, however far its parts are off', () => {
  const deviations = {
    ...{ resistor: 0.2, capacitor: 0, inductor: 0, potentiometer: 0.2, opAmp: 0 },
    ...{ shape: 'uniform' as const, oneReel: false, kelvins: 0 },
  };
  const sharesOf = (of: Sheet) => {
    const spread = spreadOfSheet(
      { ...of, parts: { ...of.parts, deviations } },
      { boards: 300, seed: 1 },
    );
    spread.draw(300);
    return spread.result().readings[0]!.shares;
  };
  const once = trimmed();
  const loose = withR1({ made: undefined }, once);
  expect(sharesOf(loose).R1).toBeGreaterThan(0.1);
  expect(sharesOf(once).R1).toBeLessThan(0.01);
});

describe('a document', () => {
  const refused =
    (change: Partial<StagePart>, part = 'R1') =>
    () => {
      const broken = structuredClone(withR1({ chosen: 'hand' }));
      const { parts } = broken.ways[0].stages[0];
      Object.assign(parts[part], change);
      readSheet(JSON.parse(JSON.stringify(broken)));
    };

  test('whose parts do not come to the value is refused at the part', () => {
    expect(refused({ value: 5000, made: { how: 'series', of: [4000, 900] } })).toThrow(
      /parts\.R1\.made.*do not come to its value/,
    );
    expect(refused({ value: 5000, made: { how: 'parallel', of: [1e4, 2e4] } })).toThrow(/made/);
    expect(refused({ value: 5000, made: { how: 'trimmer', of: [5100, 1000] } })).toThrow(
      /its trimmer cannot be set to its value/,
    );
    expect(refused({ value: 1e-8, made: { how: 'trimmer', of: [5e-9, 1e-8] } }, 'C1')).toThrow(
      /a capacitor has no trimmer/,
    );
  });

  test('whose parts do is read as it is', () => {
    for (const made of [
      { how: 'series', of: [4700, 300] },
      { how: 'parallel', of: [1e4, 1e4] },
      { how: 'trimmer', of: [4700, 1000] },
    ] as const)
      expect(refused({ value: 5000, made: { how: made.how, of: [...made.of] } })).not.toThrow();
    expect(
      refused({ value: 1e-8, made: { how: 'parallel', of: [5e-9, 5e-9] } }, 'C1'),
    ).not.toThrow();
  });
});
