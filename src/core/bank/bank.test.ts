import fc from 'fast-check';
import { acResponse } from '@/core/analysis/ac/ac';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { readSheet } from '@/core/sheet/read';
import { bankPicture, designBank, knownKey, widthsOf } from './bank';
import { makeBank } from './make';
import { bankSchema } from './schema';

const at = '2026-11-24T08:00:00.000Z';
const CENTRES = [63, 125, 250, 500, 1000, 2000, 4000, 8000];
const exact = {
  resistors: 'exact',
  capacitors: 'exact',
  inductors: 'exact',
  opAmp: { name: 'ideal', model: 'ideal' },
} as const;
const bankOf = (stages: number, overlapDb = 3) =>
  makeBank({
    id: 'b',
    title: 'Bank',
    at,
    centresHz: CENTRES,
    stages,
    overlapDb,
    parts: exact,
    load: { ohms: null },
  });

const level = (sheet: ReturnType<typeof bankOf>, way: number, hz: number): number => {
  const { re, im } = acResponse(pathCircuit(sheet.ways[way], sheet.parts, 'ideal'), {
    frequenciesHz: [hz],
    probes: ['out'],
  }).probes.out;
  return 20 * Math.log10(Math.hypot(re[0], im[0]));
};

test('neighbours of evenly spaced channels cross where the overlap says, for one to four stages', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 4 }),
      fc.double({ min: 1, max: 20, noNaN: true }),
      (stages, overlap) => {
        const ratio = 2;
        const even = makeBank({
          id: 'b',
          title: 'b',
          at,
          centresHz: [100, 200, 400],
          stages,
          overlapDb: overlap,
          parts: exact,
        });
        expect(level(even, 1, 200)).toBeCloseTo(0, 6);
        for (const cross of [200 / Math.sqrt(ratio), 200 * Math.sqrt(ratio)])
          expect(level(even, 1, cross)).toBeCloseTo(-overlap, 6);
      },
    ),
    { numRuns: 30 },
  );
});

test('the budget ends at the channel’s own level, and every channel peaks at its centre', async () => {
  const picture = await bankPicture(bankOf(2));
  picture.channels.forEach((c, i) => {
    expect(c.budgetDb).toHaveLength(2);
    expect(c.budgetDb[1]).toBeCloseTo(0, 5);
    expect(Math.abs(Math.log2(c.peakHz / CENTRES[i]))).toBeLessThan(0.2);
  });
  // Second-order neighbours are in opposite phase where they cross: with every other one inverted
  // the sum has no holes between the first and the last centre, without it it has.
  const inside = (db: Float64Array) =>
    Math.min(
      ...db.filter((_, k) => picture.frequenciesHz[k] > 63 && picture.frequenciesHz[k] < 8000),
    );
  const sheet = bankOf(2);
  const plain = await bankPicture({ ...sheet, bank: { ...sheet.bank!, alternate: false } });
  expect(inside(picture.sumDb)).toBeGreaterThan(-3);
  expect(inside(plain.sumDb)).toBeLessThan(-12);
});

test('known parts keep their values, the others are worked out around nothing else', () => {
  const sheet = bankOf(1);
  const known = { [knownKey(0, 'R3')]: 47_000 };
  const bank = {
    ...sheet.bank!,
    channels: sheet.bank!.channels.map((c, i) => (i === 2 ? { ...c, known } : c)),
  };
  const ways = designBank(bank, sheet.parts, sheet.ways[0]);
  expect(ways[2].stages[0].values.R3).toBe(47_000);
  expect(ways[3].stages[0].values).toEqual(sheet.ways[3].stages[0].values);
});

test('a width of its own is kept, and a channel that cannot be is named', () => {
  const bank = bankSchema.parse({
    channels: [
      { id: 'a', centreHz: 100, widthHz: 12 },
      { id: 'b', centreHz: 300 },
    ],
  });
  expect(widthsOf(bank)[0]).toBe(12);
  const sheet = bankOf(1);
  const narrow = bankSchema.parse({
    channels: [{ id: 'a', centreHz: 100, widthHz: 0.01, stages: 1 }],
  });
  expect(() => designBank(narrow, sheet.parts, sheet.ways[0])).toThrow(/Channel at 100\sHz/);
});

test('a bank is stored and read as a sheet; channels that are not its ways are refused', () => {
  const sheet = bankOf(2);
  expect(readSheet(JSON.parse(JSON.stringify(sheet)))).toEqual(sheet);
  expect(() => readSheet({ ...sheet, ways: [...sheet.ways].reverse() })).toThrow(/bank/);
});
