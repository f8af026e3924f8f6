import fc from 'fast-check';
import { valuesOf } from '@/core/sheet/stage';
import { designBank, knownKey } from './bank';
import { makeBank } from './make';
import { readKnownTable, withKnownTable } from './known-table';
import { bankPicture } from './picture';
import { builtFigures, levelDrift, recoveredParts } from './recover';

const exact = {
  resistors: 'exact',
  capacitors: 'exact',
  inductors: 'exact',
  opAmp: { name: 'ideal', model: 'ideal' },
} as const;
const SHEET = makeBank({
  id: 'b',
  title: 'Bank',
  at: '2026-11-24T08:00:00.000Z',
  centresHz: [100, 200, 400, 800],
  stages: 2,
  parts: exact,
  load: { ohms: null },
});
const BANK = SHEET.bank!;
const read = (text: string, mark: 'point' | 'comma' = 'point') =>
  readKnownTable(text, BANK, SHEET.ways, mark);
const MISSING = Object.keys(valuesOf(SHEET.ways[0].stages[0])).find((p) => p.startsWith('R'))!;

/** All parts of all channels but one, as a spreadsheet has them. */
function tableBut(missing: string, marked?: { value: number; trimmer: number }[]): string {
  const parts = Object.keys(valuesOf(SHEET.ways[0].stages[0]));
  const heading = ['centre', ...[1, 2].flatMap((s) => parts.map((p) => `${s}/${p}`))];
  const rows = SHEET.ways.map((way, i) => [
    BANK.channels[i].centreHz,
    ...way.stages.flatMap((stage) =>
      parts.map((p) => (p === missing ? '' : valuesOf(stage)[p].toPrecision(12))),
    ),
    ...(marked ? [marked[i].value, marked[i].trimmer] : []),
  ]);
  const extra = marked ? [`1/${missing} marked`, `1/${missing} trimmer`] : [];
  return [[...heading, ...extra], ...rows].map((r) => r.join('\t')).join('\n');
}

test('the missing resistor of every channel comes back from the centres, beside what is marked', () => {
  const values = SHEET.ways.map((w) => valuesOf(w.stages[0])[MISSING]);
  const marked = values.map((ohms, i) => ({
    value: 0.9 * ohms,
    trimmer: (i === 3 ? 0.05 : 0.4) * ohms,
  }));
  const table = read(tableBut(MISSING, marked));
  expect(table.bad).toEqual([]);
  expect(table.rows).toHaveLength(4);
  const bank = withKnownTable(BANK, table);
  const ways = designBank(bank, exact, SHEET.ways[0]);
  bank.channels.forEach((channel, i) => {
    const [first, second] = recoveredParts(channel, ways[i]);
    expect(first).toMatchObject({ key: knownKey(0, MISSING), part: MISSING });
    expect(first.value / values[i]).toBeCloseTo(1, 6);
    expect(second.key).toBe(knownKey(1, MISSING));
    // A tenth of it is left for the trimmer: a quarter of its travel, or twice what the last one has.
    expect(first.marked!.turn).toBeCloseTo(i === 3 ? 2 : 0.25, 4);
  });
});

test('the figures of every stage are those it was designed for', () => {
  for (const way of SHEET.ways)
    builtFigures(way).forEach((figures, n) => {
      const { target } = way.stages[n];
      expect(figures!.f0Hz / target!.f0Hz).toBeCloseTo(1, 9);
      expect(figures!.q! / target!.q!).toBeCloseTo(1, 9);
    });
});

test('a level that drifts is told of the stage in which it arises', async () => {
  expect(levelDrift(await bankPicture(SHEET))!.wholeDb).toBeLessThan(1e-4);
  const ways = SHEET.ways.map((way, i) =>
    i !== 2
      ? way
      : {
          ...way,
          stages: way.stages.map((stage, n) => {
            if (n !== 1) return stage;
            // The same stage fed through a larger first resistor: less gain, the rest as it was.
            const parts = {
              ...stage.parts,
              R1: { ...stage.parts.R1, value: 1.5 * stage.parts.R1.value! },
            };
            return { ...stage, parts };
          }),
        },
  );
  const drift = levelDrift(await bankPicture({ ...SHEET, ways }))!;
  expect(drift).toMatchObject({ stage: 1, channel: 2 });
  expect(drift.stagesDb[1]).toBeGreaterThan(1);
  expect(drift.stagesDb[0]).toBeLessThan(0.1);
  expect(drift.offDb).toBeLessThan(-1);
});

describe('a table of known values', () => {
  test('is read by numbers or centres, with commas, semicolons or tabs, and either decimal mark', () => {
    const want = { line: 2, channel: 1, known: { '1/R1': 22_000, '2/C1': 1e-8 }, marked: {} };
    expect(read('channel,1/R1,2/C1\n2,22k,10n').rows).toEqual([want]);
    expect(read('centre;1 r1;2/c1\n200,0;22,0k;10n', 'comma').rows).toEqual([want]);
    expect(read('Hz\tR1\tstage 2 C1\n0.2k\t22000\t0.01u').rows).toEqual([want]);
  });

  test('lists what it cannot read by line, and keeps the rest', () => {
    const { rows, bad } = read('channel,1/R1,1/Q9\n1,22k,\n9,1k,\n2,lots,\n1,3k,\n3,,\n,5k,');
    expect(rows.map((r) => r.channel)).toEqual([0, 2]);
    expect(rows[1].known).toEqual({ '1/R1': null });
    expect(bad.map((b) => b.line)).toEqual([1, 3, 4, 5, 7]);
    expect(bad.map((b) => b.why).join(' ')).toMatch(
      /no part “Q9”.*no channel “9”.*“lots”.*given before.*which channel/s,
    );
  });

  test('empties make parts unknown again; what it does not speak of stays', () => {
    const before = withKnownTable(BANK, read('channel,1/R1,1/R2\n1,22k,1k'));
    const after = withKnownTable(before, read('channel,1/R1\n1,'));
    expect(after.channels[0].known).toEqual({ '1/R2': 1000 });
    expect(after.channels.slice(1)).toEqual(BANK.channels.slice(1));
  });

  test.each(['', 'channel', 'nothing,here\n1,2', 'channel,colour\n1,red'])(
    '%j is refused in words',
    (text) => {
      expect(() => read(text)).toThrow(/heading/);
    },
  );

  test('whatever is pasted, nothing breaks', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 200 }), (text) => {
        for (const whole of [text, `channel,1/R1\n${text}`]) {
          try {
            const { rows } = read(whole);
            for (const { channel } of rows) expect(BANK.channels[channel]).toBeDefined();
          } catch (error) {
            expect((error as Error).name).toBe('ReedError');
          }
        }
      }),
      { numRuns: 300 },
    );
  });
});
