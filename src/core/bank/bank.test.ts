import fc from 'fast-check';
import { acResponse } from '@/core/analysis/ac/ac';
import { outNet } from '@/core/sheet/nets';
import { valuesOf } from '@/core/sheet/stage';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { readSheet } from '@/core/sheet/read';
import { designBank, knownKey, workedOut } from './bank';
import { makeBank } from './make';
import { bankPicture } from './picture';
import { bankSchema } from '@/core/sheet/bank-schema';
import { channelBands } from './widths';

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
  const { re, im } = acResponse(pathCircuit(sheet, way, 'ideal'), {
    frequenciesHz: [hz],
    probes: [outNet(sheet, way)],
  }).probes[outNet(sheet, way)];
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
    expect(c.peakHz / CENTRES[i]).toBeCloseTo(1, 2);
    expect(c.builtWidthHz! / c.widthHz).toBeCloseTo(1, 6);
  });
  // Second-order neighbours are in opposite phase where they cross: with every other one inverted
  // the sum has no holes between the first and the last centre, without it it has.
  const inside = (db: Float64Array) =>
    Math.min(
      ...db.filter((_, k) => picture.frequenciesHz[k] > 63 && picture.frequenciesHz[k] < 8000),
    );
  const sheet = bankOf(2);
  const bank = { ...sheet.bank!, alternate: false };
  const ways = designBank(bank, sheet.parts, sheet.ways[0]);
  const plain = await bankPicture({ ...sheet, bank, ways });
  expect(inside(picture.sumDb)).toBeGreaterThan(-3);
  expect(inside(plain.sumDb)).toBeLessThan(-12);
});

/** Channels at random places, each from a sixth of an octave to two octaves above the last. */
const unevenly = fc
  .array(fc.double({ min: 1 / 6, max: 2, noNaN: true }), { minLength: 1, maxLength: 7 })
  .map((octaves) => {
    let at = 40;
    return [at, ...octaves.map((o) => (at *= 2 ** o))];
  });

test('neighbours cross as far down as asked, however their centres are spaced', async () => {
  await fc.assert(
    fc.asyncProperty(
      unevenly,
      fc.integer({ min: 1, max: 3 }),
      fc.double({ min: 1.5, max: 9, noNaN: true }),
      async (centresHz, stages, overlapDb) => {
        const sheet = makeBank({
          id: 'b',
          title: 'b',
          at,
          centresHz,
          stages,
          overlapDb,
          parts: exact,
          load: { ohms: null },
        });
        const { channels } = await bankPicture(sheet);
        for (const { meetsNext } of channels.slice(0, -1)) {
          expect(meetsNext!.downDb).toBeCloseTo(overlapDb, 4);
          // By another way: both channels asked at that very place.
          const i = channels.findIndex((c) => c.meetsNext === meetsNext);
          for (const way of [i, i + 1])
            expect(level(sheet, way, meetsNext!.hz)).toBeCloseTo(-overlapDb, 4);
        }
      },
    ),
    { numRuns: 25 },
  );
});

test('even or nearly even centres are kept exactly', () => {
  const sheet = makeBank({ id: 'b', title: 'b', at, centresHz: CENTRES, stages: 1 });
  expect(channelBands(sheet.bank!).map((b) => b.centreHz)).toEqual(CENTRES);
  const twice = {
    ...sheet.bank!,
    channels: sheet.bank!.channels.map((c) => ({ ...c, centreHz: 100 })),
  };
  expect(() => channelBands(twice)).toThrow(/Two channels have their centre at 100\sHz/);
});

test('known parts keep their values, and the others are solved around them', async () => {
  await fc.assert(
    fc.asyncProperty(
      unevenly,
      fc.integer({ min: 1, max: 3 }),
      fc.double({ min: 0.5, max: 2, noNaN: true }),
      fc.subarray(['C1', 'C2', 'R1', 'R2', 'R3'], { minLength: 1, maxLength: 2 }),
      async (centresHz, stages, factor, parts) => {
        const sheet = makeBank({
          id: 'b',
          title: 'b',
          at,
          centresHz,
          stages,
          parts: exact,
          load: { ohms: null },
        });
        const given = sheet.ways[0].stages[0];
        const known = Object.fromEntries(
          parts.flatMap((p) =>
            p in valuesOf(given) ? [[knownKey(0, p), valuesOf(given)[p] * factor]] : [],
          ),
        );
        const bank = {
          ...sheet.bank!,
          channels: sheet.bank!.channels.map((c, i) => (i === 0 ? { ...c, known } : c)),
        };
        const ways = (() => {
          try {
            return designBank(bank, sheet.parts, sheet.ways[0]);
          } catch (error) {
            // Some parts leave no answer; the channel is then named.
            expect((error as Error).message).toMatch(/Channel at .* given, no value of/);
            return undefined;
          }
        })();
        if (!ways) return;
        for (const [key, value] of Object.entries(known))
          expect(valuesOf(ways[0].stages[0])[key.slice(2)]).toBe(value);
        expect(ways.slice(1)).toEqual(sheet.ways.slice(1));
        const { missed } = workedOut(bank.channels[0], ways[0]);
        if (missed.length > 0) return;
        const built = (await bankPicture({ ...sheet, bank, ways })).channels[0];
        const before = (await bankPicture(sheet)).channels[0];
        // A flat top has its highest point somewhere on it: with three stages it differs from its
        // neighbours by the sixth power of their distance, which rounding hides for some per cent.
        expect(built.peakHz / before.peakHz).toBeCloseTo(1, stages < 3 ? 3 : 1);
        expect(built.peakDb).toBeCloseTo(before.peakDb, 7);
        expect(built.builtWidthHz! / before.builtWidthHz!).toBeCloseTo(1, 7);
      },
    ),
    { numRuns: 40 },
  );
});

test('the one missing resistor is recovered for the frequency, and what it cannot give is said', () => {
  const sheet = bankOf(1);
  const values = valuesOf(sheet.ways[2].stages[0]);
  const [c1] = [values.C1 * 1.1];
  const known = Object.fromEntries(
    Object.entries({ ...values, C1: c1 })
      .filter(([id]) => id !== 'R2')
      .map(([id, v]) => [knownKey(0, id), v]),
  );
  const bank = {
    ...sheet.bank!,
    channels: sheet.bank!.channels.map((c, i) => (i === 2 ? { ...c, known } : c)),
  };
  const way = designBank(bank, sheet.parts, sheet.ways[0])[2];
  expect(level(sheet, 2, 250)).toBeCloseTo(0, 4);
  const { missed } = workedOut(bank.channels[2], way);
  expect(missed.map((m) => m.figure)).toEqual(expect.arrayContaining(['Q']));
  const again = { ...sheet, ways: sheet.ways.map((w, i) => (i === 2 ? way : w)) };
  const [below, there, above] = [249, 250, 251].map((hz) => {
    const { re, im } = acResponse(pathCircuit(again, 2, 'built'), {
      frequenciesHz: [hz],
      probes: [outNet(again, 2)],
    }).probes[outNet(again, 2)];
    return Math.hypot(re[0], im[0]);
  });
  expect(there).toBeGreaterThan(below);
  expect(there).toBeGreaterThan(above);
});

test('a width of its own is kept, and a channel that cannot be is named', () => {
  const bank = bankSchema.parse({
    channels: [
      { id: 'a', centreHz: 100, widthHz: 12 },
      { id: 'b', centreHz: 300 },
    ],
  });
  expect(channelBands(bank)[0].widthHz).toBe(12);
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
