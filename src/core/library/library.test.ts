import fc from 'fast-check';
import { ReedError } from '@/core/errors';
import { driverEntryKind } from './driver';
import { readEntry, type LibraryKind } from './entry';
import { LIBRARY, LIBRARY_TABLES, readLibrary } from './index';
import { stockKind } from './stock';
import { takeKind, type Take } from './take';
import { DRIVER, STOCK, TAKE } from './testing';

const refusal = (kind: LibraryKind<never>, document: unknown): string => {
  try {
    readEntry(kind, document);
  } catch (error) {
    if (error instanceof ReedError) return error.message;
    throw error;
  }
  throw new Error('was read');
};

test('what is written reads back', () => {
  const entries = { takes: TAKE, drivers: DRIVER, drawer: STOCK };
  for (const table of LIBRARY_TABLES)
    expect(readEntry(LIBRARY[table], JSON.parse(JSON.stringify(entries[table])))).toEqual(
      entries[table],
    );
});

test.each<[string, Partial<Record<keyof Take, unknown>>, string]>([
  ['levels missing', { levelDb: [0] }, 'at “levelDb”: it lists 1 levels for 3 frequencies'],
  ['too few phases', { phaseDegrees: [1, 2] }, 'it lists 2 phases for 3 frequencies'],
  ['too little noise', { noiseDb: [0.1] }, 'it lists 1 levels of noise for 3 frequencies'],
  ['noise below nought', { noiseDb: [0.1, -1, 0] }, '“noiseDb[1]”'],
  [
    'too few of a harmonic',
    {
      harmonics: [
        { order: 2, levelDb: [-60, null, -70] },
        { order: 3, levelDb: [-60] },
      ],
    },
    '“harmonics[1].levelDb”: it lists 1 levels for 3 frequencies',
  ],
  ['falling', { frequenciesHz: [100, 90, 200] }, '“frequenciesHz[1]”: must be above the frequency'],
  ['twice', { frequenciesHz: [100, 100, 200] }, '“frequenciesHz[1]”: must be above the frequency'],
  ['negative', { frequenciesHz: [-1, 2, 3] }, '“frequenciesHz[0]”: must be at least 1\u00a0mHz'],
  ['no number', { levelDb: [0, null, 1] }, '“levelDb[1]”: must be a finite number'],
  ['empty', { frequenciesHz: [], levelDb: [] }, 'must list at least one point'],
  ['no date', { at: 'yesterday' }, '“at”: must be a date and time in ISO form'],
  ['of tomorrow', { version: 2 }, '“version”: must be 1: a newer one needs a newer program'],
  ['of another kind', { format: 'jaunty-reed/driver' }, 'must be "jaunty-reed/take"'],
])('a take: %s is refused with its place', (_, change, words) => {
  expect(refusal(takeKind as never, { ...TAKE, ...change })).toContain(words);
});

test('a loudspeaker and a part are held to the figures of their kind of part', () => {
  const { model } = DRIVER;
  expect(refusal(driverEntryKind as never, { ...DRIVER, model: { ...model, reOhms: 0 } })).toBe(
    'The loudspeaker cannot be read at “model.reOhms”: must be at least 1\u00a0mΩ.',
  );
  expect(refusal(stockKind as never, { ...STOCK, kind: 'valve' })).toMatch(/no kind of part/);
  expect(refusal(stockKind as never, { ...STOCK, value: -1 })).toMatch(/“value”: must be at least/);
  expect(refusal(stockKind as never, { ...STOCK, quantity: 1.5 })).toMatch(/a whole number/);
});

test('what goes along is read whole or not at all', () => {
  expect(readLibrary({ takes: [TAKE] })).toEqual({ takes: [TAKE], drivers: [], drawer: [] });
  expect(() => readLibrary({ takes: [TAKE, { ...TAKE, id: '' }] })).toThrow(/“along.takes\[1\]”/);
  expect(() => readLibrary({ takes: [TAKE, TAKE] })).toThrow(/a second take has the id “t1”/);
  expect(() => readLibrary({ songs: [] })).toThrow(/“along.songs”.*there are takes, drivers/);
  expect(() => readLibrary([])).toThrow(/an object was expected/);
  expect(() => readLibrary({ takes: 4 })).toThrow(/“along.takes”: a list was expected/);
});

test('anything at all is read or refused in words, by every kind', () => {
  fc.assert(
    fc.property(fc.constantFrom(...LIBRARY_TABLES), fc.anything(), (table, document) => {
      try {
        readEntry(LIBRARY[table], document);
      } catch (error) {
        expect(error).toBeInstanceOf(ReedError);
      }
    }),
    { numRuns: 300, seed: 2 },
  );
});

test('every kind has what lists of kinds need', () => {
  for (const table of LIBRARY_TABLES) {
    expect(LIBRARY[table].table).toBe(table);
    expect(LIBRARY[table].noun).toMatch(/\w/);
  }
});

test('a loudspeaker of which only the terminals were known is read as one with figures', () => {
  const before = { ohms: 5.6, henries: 0.8e-3, resonanceHz: 52, mechanicalQ: 4, electricalQ: 0.4 };
  expect(readEntry(driverEntryKind, { ...DRIVER, model: before })).toEqual(DRIVER);
});
