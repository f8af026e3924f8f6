import fc from 'fast-check';
import { readTable } from './read-table';

const rowsOf = (text: string) =>
  readTable(text).rows.map((r) => [
    r.frequencyHz,
    r.value,
    ...(r.phaseDegrees === undefined ? [] : [r.phaseDegrees]),
  ]);

test.each([
  [
    'tabs and points',
    '20\t80.5\t12\n40\t81\t-3.5\n',
    [
      [20, 80.5, 12],
      [40, 81, -3.5],
    ],
  ],
  [
    'semicolons and decimal commas',
    '20,5;80,25\r\n40;81\r\n',
    [
      [20.5, 80.25],
      [40, 81],
    ],
  ],
  [
    'spaces, a heading and comments',
    '* made up\nFreq SPL\n 20   80\n # later\n 40   81',
    [
      [20, 80],
      [40, 81],
    ],
  ],
  [
    'a byte-order mark and quotes',
    '\uFEFF"20.5","80"\n"40","81"',
    [
      [20.5, 80],
      [40, 81],
    ],
  ],
  [
    'quoted decimal commas',
    '"20,5","80,1"\n"40,0","81,7"',
    [
      [20.5, 80.1],
      [40, 81.7],
    ],
  ],
  [
    'old Macintosh line ends',
    '20,80\r40,81',
    [
      [20, 80],
      [40, 81],
    ],
  ],
  [
    'a header after a sharp',
    '# Hz, dB\n20,80\n40,81',
    [
      [20, 80],
      [40, 81],
    ],
  ],
  [
    'a trailing separator',
    '20;80;\n40;81;',
    [
      [20, 80],
      [40, 81],
    ],
  ],
  [
    'rows in falling order',
    '40 81\n20 80',
    [
      [20, 80],
      [40, 81],
    ],
  ],
])('%s', (_, text, rows) => expect(rowsOf(text)).toEqual(rows));

test('each line that cannot be taken is refused by its number, with the reason', () => {
  const text = [
    'f;dB',
    '20;80',
    '20;81',
    '-5;3',
    '0;3',
    '30;',
    '40;abc',
    '50;85;;1',
    '10;79',
    '1e12;1',
  ].join('\n');
  const { rows, refused, noted } = readTable(text);
  expect(rows.map((r) => [r.line, r.frequencyHz])).toEqual([
    [9, 10],
    [2, 20],
  ]);
  expect(refused.map((r) => [r.line, r.why])).toEqual([
    [3, 'the frequency was given before, in line 2'],
    [4, 'the frequency is negative'],
    [5, 'the frequency is zero'],
    [6, 'the level or resistance is missing'],
    [7, 'the level or resistance “abc” is no number'],
    [8, 'it has 4 columns where two or three were expected'],
    [10, 'the frequency is above 1 GHz'],
  ]);
  expect(noted).toEqual([
    { line: 9, text: '10;79', why: expect.stringMatching(/put in its place/) as string },
  ]);
});

test('a phase that some rows lack', () => {
  expect(readTable('20 80 5\n30 81\n40 82 6').refused).toEqual([
    { line: 2, text: '30 81', why: 'the phase is missing' },
  ]);
  const few = readTable('20 80\n30 81\n40 82 6');
  expect(few.rows.every((r) => r.phaseDegrees === undefined)).toBe(true);
  expect(few.noted.map((n) => n.line)).toEqual([3]);
});

test('commas that may group thousands are refused, not guessed at', () => {
  expect(() => readTable('1,000;80\n2,000;81')).toThrow(/could be thousands or a fraction/);
  // Of five digits no thousand is made: these are fractions.
  expect(rowsOf('1,000;80\n20000,000;81')).toEqual([
    [1, 80],
    [20000, 81],
  ]);
});

test('Touchstone files of one port become ohms', () => {
  expect(rowsOf('! made up\n# kHz Z RI R 1\n1 3 4\n2 6 8 ! twice')).toEqual([
    [1000, 5, expect.closeTo(53.1301, 3)],
    [2000, 10, expect.closeTo(53.1301, 3)],
  ]);
  // A reflection of a third is twice the reference; version 1 gives Z over the reference.
  expect(rowsOf('# Hz S MA R 8\n100 0.3333333333333333 0')[0][1]).toBeCloseTo(16, 9);
  expect(rowsOf('# Hz Z MA R 8\n100 2 0')[0][1]).toBeCloseTo(16, 9);
  expect(
    rowsOf('[Version] 2.0\n# Hz Z MA R 8\n[Number of Ports] 1\n100 2 0\n[End]')[0][1],
  ).toBeCloseTo(2, 9);
  expect(() => readTable('# Hz S MA R 50\n[Number of Ports] 2\n1 2 3')).toThrow(
    /2 ports where one/,
  );
  expect(readTable('# Hz S DB R 50\n1 0 0\n2 -20 0\n3 1').refused.map((r) => r.line)).toEqual([
    2, 4,
  ]);
});

test('texts without a row are refused in words', () => {
  for (const text of ['', '\n\n', 'hello\nworld', '# only a comment'])
    expect(() => readTable(text)).toThrow(/no row of numbers/);
  expect(() => readTable('20;x\n30;y')).toThrow(/line 1: the level or resistance “x” is no number/);
  expect(() => readTable('PK\u0003\0\0')).toThrow(/not a text file/);
});

/** How a made-up program writes its tables. */
const style = fc.record({
  separator: fc.constantFrom('\t', ';', ' ', ',', ' \t '),
  decimal: fc.constantFrom('.', ','),
  end: fc.constantFrom('\n', '\r\n', '\r'),
  mark: fc.constantFrom('', '\uFEFF'),
  heading: fc.constantFrom(
    '',
    'Frequency Level',
    '* made up',
    '# 2026',
    '; x',
    '// y',
    '% z',
    '"Hz"',
  ),
  phased: fc.boolean(),
});
const number = (most: number) => fc.integer({ min: 1, max: most * 100 }).map((n) => n / 100);

test('what any style wrote is read back, and every line is accounted for', () => {
  fc.assert(
    fc.property(
      style,
      fc.uniqueArray(fc.tuple(number(20_000), number(120), number(180)), {
        minLength: 8,
        maxLength: 20,
        selector: ([hz]) => hz,
      }),
      fc.array(
        fc.tuple(fc.nat(20), fc.constantFrom('junk', '-3;4', '1 2 3 4 5 6', 'nan\tnan', '1e999;1')),
        { maxLength: 3 },
      ),
      ({ separator, decimal, end, mark, heading, phased }, rows, bad) => {
        fc.pre(!(separator === ',' && decimal === ','));
        const text = (x: number) => x.toFixed(2).replace('.', decimal);
        const good = rows.map(([hz, db, deg]) => [hz, db, ...(phased ? [deg] : [])]);
        const lines = [good[0].map(text).join(separator)];
        lines.push(...good.slice(1).map((row) => row.map(text).join(separator)));
        for (const [at, line] of bad) lines.splice(1 + (at % lines.length), 0, line);
        const found = readTable(mark + [...(heading ? [heading] : []), ...lines].join(end));
        expect(
          found.rows.map((r) => [r.frequencyHz, r.value, ...(phased ? [r.phaseDegrees] : [])]),
        ).toEqual([...good].sort((a, b) => a[0] - b[0]));
        expect(found.rows.length + found.refused.length).toBe(lines.length);
      },
    ),
    { numRuns: 500 },
  );
});

test('any text at all is read or refused in words', () => {
  const piece = fc.constantFrom(
    '1',
    '20',
    '-',
    ',',
    ';',
    '\t',
    ' ',
    '.',
    '\n',
    '\r\n',
    'e5',
    '"',
    '#',
    '! Hz',
    '# Hz S RI R 50',
    '\0',
    'é',
    '[x]',
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 60 }), (pieces) => {
      try {
        const { rows } = readTable(pieces.join(''));
        for (const r of rows) {
          expect(r.frequencyHz).toBeGreaterThan(0);
          expect(Number.isFinite(r.value)).toBe(true);
        }
      } catch (error) {
        expect((error as Error).name).toBe('ReedError');
      }
    }),
    { numRuns: 600 },
  );
});
