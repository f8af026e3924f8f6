import fc from 'fast-check';
import { demoMade } from '@/testing/demo';
import { ReedError } from '@/core/errors';
import { designOf } from './design-of';
import { gate } from './gate';
import { partsOf } from './stage';
import { makeSheet } from './make';
import { readSheetFiles } from './file';
import { migrateSheet, readSheet } from './read';
import { salvageSheet } from './salvage';
import type { Keep, Sheet } from './schema';

const AT = '2026-11-23T08:00:00.000Z';
const SHEET = makeSheet({
  id: 'x',
  title: 'Test',
  at: AT,
  ask: {
    kind: 'low-pass',
    shape: 'butterworth',
    order: 4,
    edgeHz: 3400,
    topology: 'unity-low-pass',
  },
});
const KEEP: Keep = {
  id: 'k',
  name: 'k',
  at: AT,
  shown: true,
  design: designOf(SHEET),
};
type Fields = Record<string, unknown>;
const plain = (sheet: unknown) => JSON.parse(JSON.stringify(sheet)) as Fields;

/** The one line that a refusal says. */
function refusal(read: () => unknown): string {
  try {
    read();
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    expect(error.message.length).toBeLessThan(260);
    expect(error.message).not.toMatch(/“”|undefined|\n|call stack/);
    return error.message;
  }
  throw new Error('it was accepted');
}

test('what is written reads back the same', () =>
  expect(readSheetFiles(JSON.stringify(SHEET))).toMatchObject([{ sheet: SHEET }]));

const first = SHEET.ways[0];
const withStage = (change: object) => ({
  ...SHEET,
  ways: [{ ...first, stages: [{ ...first.stages[0], ...change }] }],
});
const broken: [string, unknown, RegExp][] = [
  ['a foreign format', { ...SHEET, format: 'something/else' }, /its format is “something\/else”/],
  ['a newer version', { ...SHEET, version: 9 }, /version 9.*update the program/],
  ['a list', [], /not a sheet/],
  ['no title', { ...SHEET, title: undefined }, /“title”: is missing/],
  ['a blank title', { ...SHEET, title: '  ' }, /“title”: must have a letter/],
  ['an invisible title', { ...SHEET, title: '\u200b\u200d' }, /“title”: must have a letter/],
  ['an edge below zero', { ...SHEET, ask: { ...SHEET.ask, edgeHz: -1 } }, /at least 1\smHz/],
  [
    'a stage of no topology',
    withStage({ topology: 'nonesuch' }),
    /no topology is called “nonesuch”/,
  ],
  [
    'an ask of no topology',
    { ...SHEET, ask: { ...SHEET.ask, topology: 'nonesuch' } },
    /“ask.topology”: no topology/,
  ],
  [
    'a keep’s ask of no topology',
    {
      ...SHEET,
      keeps: [{ ...KEEP, design: { ...KEEP.design, ask: { ...SHEET.ask, topology: 'n' } } }],
    },
    /keeps\[0\].design.ask.topology/,
  ],
  [
    'a missing part',
    withStage({ parts: partsOf({ R1: 1, R2: 1, C1: 1e-9 }) }),
    /value of C2 is missing/,
  ],
  [
    'a farad too many',
    withStage({ parts: { ...first.stages[0].parts, ...partsOf({ C1: 1e300 }) } }),
    /parts.C1”: must be at most 10\sF/,
  ],
  ['two ways of one id', { ...SHEET, ways: [first, first] }, /a second path has the id “w1”/],
  [
    'two readings of one id',
    { ...SHEET, readings: [SHEET.readings[0], SHEET.readings[0]] },
    /a second reading/,
  ],
  ['two keeps of one id', { ...SHEET, keeps: [KEEP, KEEP] }, /a second keep has the id “k”/],
  ['an unknown field', { ...SHEET, ['x'.repeat(3_000)]: 1 }, /a field not known here, “x{39}…”/],
  [
    'an unknown measure',
    { ...SHEET, readings: [{ id: 'r', measure: { measure: 'y'.repeat(3000) } }] },
    /is “y{39}…”, which is not known here/,
  ],
  [
    'an unknown form of what is wanted',
    { ...SHEET, readings: [{ ...SHEET.readings[0], wanted: { is: 'r1' } }] },
    /“readings\[0\].wanted.is”: is “r1”, which is not known here: one of near, at-least, at-most\./,
  ],
  [
    'a measure left out',
    { ...SHEET, readings: [{ id: 'r', measure: {} }] },
    /“readings\[0\].measure.measure”: is missing/,
  ],
  [
    'a wrong kind',
    { ...SHEET, ask: { ...SHEET.ask, kind: 'loud' } },
    /“ask.kind”: is “loud”, which is not known here\./,
  ],
  ['a number for text', { ...SHEET, title: 4 }, /“title”: must be text, not 4/],
  ['a very long text', { ...SHEET, title: 'a'.repeat(3e6) }, /more than 4000 characters/],
];
test.each(broken)('%s is refused with the place, briefly', (_, document, words) =>
  expect(refusal(() => readSheet(document))).toMatch(words),
);

test('texts that are too deep, too long or cut off are refused before they are parsed', () => {
  const deep = '['.repeat(200_000) + ']'.repeat(200_000);
  expect(refusal(() => readSheetFiles(deep))).toMatch(/more than 32 lists and objects/);
  expect(refusal(() => readSheetFiles(`{"a":${'{"a":'.repeat(60)}1${'}'.repeat(61)}`))).toMatch(
    /more than 32/,
  );
  expect(refusal(() => readSheetFiles(`"${'a'.repeat(3e6)}"`))).toMatch(/4000 characters/);
  expect(refusal(() => readSheetFiles(' '.repeat(20_000_001)))).toMatch(/longer than 20 MB/);
  expect(refusal(() => readSheetFiles(JSON.stringify(SHEET).slice(0, 100)))).toMatch(
    /not JSON: it ends too early/,
  );
  expect(refusal(() => readSheetFiles('{"a": b}'))).toMatch(/not JSON: (line 1, column 7|“b”)/);
  expect(refusal(() => readSheetFiles(''))).toMatch(/it is empty/);
  expect(refusal(() => readSheetFiles(`[${'1,'.repeat(9000)}1]`))).toMatch(
    /more than 5000 entries/,
  );
});

test('an object that contains itself is refused, not followed', () => {
  const knot: Fields = { format: 'jaunty-reed/sheet' };
  knot.self = knot;
  expect(refusal(() => readSheet(knot))).toMatch(/more than 32/);
});

test('older documents pass through every migration in turn', () => {
  const old = { format: 'jaunty-reed/sheet', version: 1, a: 1 };
  const steps = {
    1: (d: Fields) => ({ ...d, b: 2 }),
    2: (d: Fields) => ({ ...d, c: Number(d.b) + 1 }),
  };
  expect(migrateSheet(old, steps, 3)).toEqual({ ...old, version: 3, b: 2, c: 3 });
});

describe('the gate', () => {
  const words: [string, Partial<Sheet>, RegExp][] = [
    ['an edge', { ask: { ...SHEET.ask, edgeHz: 2e7 } }, /^The edge must be at most 10\sMHz\.$/],
    ['a gain', { ask: { ...SHEET.ask, gainDb: 61 } }, /^The gain must be at most 60 dB\.$/],
    [
      'the 101st keep',
      { keeps: Array.from({ length: 101 }, (_, i) => ({ ...KEEP, id: `k${i}` })) },
      /^A sheet holds at most 100 keeps: remove one first\.$/,
    ],
    [
      'the 41st stage',
      {
        ways: [
          {
            ...first,
            stages: Array.from({ length: 41 }, (_, i) => ({ ...first.stages[0], id: `s${i}` })),
          },
        ],
      },
      /^A path holds at most 40 stages: remove one first\.$/,
    ],
    [
      'a part',
      {
        ways: [
          {
            ...first,
            stages: [
              { ...first.stages[0], parts: { ...first.stages[0].parts, ...partsOf({ C1: 20 }) } },
            ],
          },
        ],
      },
      /^C1 must be at most 10\sF\.$/,
    ],
    [
      'a picture',
      { view: { lens: 'level', fromHz: 1e-300, toHz: 1e9 } },
      /lower frequency must be at least 1\smHz/,
    ],
  ];
  test.each(words)('refuses %s in the words of its field', (_, change, said) =>
    expect(refusal(() => gate({ ...SHEET, ...change }))).toMatch(said),
  );

  test('passes what reads back, and only that', () => {
    for (const sheet of demoMade(AT)) {
      gate(sheet);
      expect(readSheet(plain(sheet))).toEqual(sheet);
    }
  });
});

describe('a damaged document', () => {
  /** Somewhere in a document, something else. */
  const damage = fc.record({
    steps: fc.array(fc.nat(), { minLength: 1, maxLength: 6 }),
    to: fc.oneof(
      fc.constant(undefined),
      fc.constant(null),
      fc.string(),
      fc.double(),
      fc.constant([]),
      fc.constant({ id: 'r1' }),
      fc.constantFrom(1e308, 5e-324, -1, NaN),
    ),
  });
  const damaged = (document: Fields, { steps, to }: { steps: number[]; to: unknown }): Fields => {
    let node = document;
    for (const [i, step] of steps.entries()) {
      const keys = Object.keys(node);
      if (keys.length === 0) break;
      const key = keys[step % keys.length];
      const inner = node[key];
      if (i === steps.length - 1 || typeof inner !== 'object' || inner === null) {
        node[key] = to;
        break;
      }
      node = inner as Fields;
    }
    return document;
  };

  test('is refused in words or reads; what can be read of it always makes a sheet', () => {
    const whole = demoMade(AT).map((s) => plain({ ...s, keeps: [KEEP] }));
    fc.assert(
      fc.property(
        fc.nat(whole.length - 1),
        fc.array(damage, { minLength: 1, maxLength: 5 }),
        (which, faults) => {
          const document = faults.reduce(damaged, structuredClone(whole[which]));
          let read = true;
          try {
            readSheet(document);
          } catch (error) {
            if (!(error instanceof ReedError)) throw error;
            read = false;
          }
          const { sheet, leftOut } = salvageSheet(document, 'new', AT);
          gate(sheet);
          expect(readSheet(plain(sheet))).toEqual(sheet);
          if (read) expect(leftOut).toEqual([]);
        },
      ),
      { numRuns: 200 },
    );
  });

  test('gives back all that passes, with a list of what was left out', () => {
    const document = plain({
      ...SHEET,
      keeps: [KEEP, { ...KEEP, id: 'k2', name: 'Second', at: 'x' }],
    });
    (document.readings as Fields[])[1].measure = { measure: 'taste' };
    document.createdAt = 'long ago';
    const { sheet, leftOut } = salvageSheet(document, 'new', AT);
    expect(sheet.ways).toEqual(SHEET.ways);
    expect(sheet.keeps).toEqual([KEEP]);
    expect(sheet.readings).toHaveLength(SHEET.readings.length - 1);
    expect(leftOut).toEqual([
      expect.stringMatching(/^reading 2: “measure.measure” is “taste”, which is not known here/),
      expect.stringMatching(/^keep “Second”: “at” must be a date/),
    ]);
  });

  test.each([null, 4, 'text', [], {}, new Date(0), { title: 'Only a name' }])(
    'makes a sheet even of %p',
    (document) => gate(salvageSheet(document, 'new', AT).sheet),
  );
});

test('a file of a whole shelf gives every sheet that can be read, and says which cannot', () => {
  const other = { ...SHEET, title: 'Another' };
  const [first, bad, last] = readSheetFiles(
    JSON.stringify([SHEET, { ...SHEET, version: 99 }, other]),
  );
  expect([first, last]).toMatchObject([{ sheet: SHEET }, { sheet: other }]);
  expect(bad).toMatchObject({ code: 'document', place: { path: 'version' } });
  expect((bad as ReedError).message).toMatch(/^Sheet 2 of the list: The sheet is of version 99/);
  expect(readSheetFiles('[]')).toEqual([]);
});
