import fc from 'fast-check';
import type { ReedError } from '@/core/errors';
import { readStockLines, readStockTable, stockTable } from './stock-table';
import { stockLine } from './stock-words';

describe('a typed line', () => {
  test.each([
    [
      '10x 22n 5 % film',
      { kind: 'capacitor', value: 22e-9, quantity: 10, tolerance: 0.05, make: 'film' },
    ],
    [
      '470R 1% 0.25 W metal film 50 ppm at 0.04 in box 3',
      {
        kind: 'resistor',
        value: 470,
        tolerance: 0.01,
        ratedWatts: 0.25,
        ppmPerKelvin: 50,
        price: 0.04,
        place: 'box 3',
        make: 'metal film',
      },
    ],
    ['4k7', { kind: 'resistor', value: 4700, quantity: 1 }],
    ['22 nF 100V', { kind: 'capacitor', value: 22e-9, ratedVolts: 100 }],
    ['3x 10 ohm 1/4W', { kind: 'resistor', value: 10, quantity: 3, ratedWatts: 0.25 }],
    ['2x 1m coil', { kind: 'inductor', value: 1e-3, quantity: 2 }],
    ['5x 1m8H coil', { kind: 'inductor', value: 1.8e-3, quantity: 5 }],
    [
      '12 pcs 4.7 uF electrolytic 63 V',
      { kind: 'capacitor', value: 4.7e-6, quantity: 12, ratedVolts: 63 },
    ],
    ['3x op-amp quiet bipolar', { kind: 'op-amp', name: 'quiet bipolar', quantity: 3 }],
    ['op-amp quiet bipolar, 10 MHz', { kind: 'op-amp', name: 'quiet bipolar, 10 MHz' }],
    ['22n, 5 %, film, 4 pcs', { kind: 'capacitor', value: 22e-9, make: 'film', quantity: 4 }],
  ])('%s', (line, said) => {
    expect(stockLine(line)).toMatchObject(said);
  });

  test.each([
    ['1000', /could be of any kind/],
    ['film 5 %', /names no value/],
    ['4k7 in', /is no kind|names no|4k7/],
    ['22n 22n2x', /./],
  ])('“%s” is read, or refused in words', (line, why) => {
    try {
      expect(stockLine(line).quantity).toBeGreaterThan(0);
    } catch (error) {
      expect((error as ReedError).message).toMatch(why);
    }
  });

  test('with a thousandth of nobody knows what asks what of, and takes a coil’s as it is', () => {
    // A letter for thousandths is no resistor's, for all that a capital one is for millions.
    expect(() => stockLine('4x 1m8 10 % ferrite')).toThrow(/could be of any kind/);
    expect(stockLine('4x 1m8 10 % ferrite coil')).toMatchObject({
      kind: 'inductor',
      value: 1.8e-3,
    });
    expect(stockLine('4x 1M8 5 %')).toMatchObject({ kind: 'resistor', value: 1.8e6 });
    expect(stockLine('4x 1MEG 5 %')).toMatchObject({ kind: 'resistor', value: 1e6 });
  });

  test('reads a comma as the decimal mark where that is the habit', () => {
    expect(stockLine('4x 2,2k 0,5 %', 'comma')).toMatchObject({ value: 2200, tolerance: 0.005 });
  });
});

describe('a table', () => {
  test('is read by its heading, whatever stands between cells', () => {
    for (const mark of [',', ';', '\t']) {
      const text = [
        ['Type', 'Value', 'Qty', 'Tol', 'Location'],
        ['resistor', '10k', '50', '1%', 'A1'],
        ['capacitor', '22n', '10', '5', 'B2'],
      ]
        .map((row) => row.join(mark))
        .join('\n');
      const { columns, rows } = stockTable(text);
      expect(columns).toEqual(['kind', 'value', 'quantity', 'tolerance', 'place']);
      const { good, bad } = readStockTable({ columns, rows });
      expect(bad).toEqual([]);
      expect(good.map((g) => g.words)).toMatchObject([
        { kind: 'resistor', value: 10e3, quantity: 50, tolerance: 0.01, place: 'A1' },
        { kind: 'capacitor', value: 22e-9, quantity: 10, tolerance: 0.05, place: 'B2' },
      ]);
    }
  });

  test('lists each bad line with its number and reason, and offers the others', () => {
    const { columns, rows } = stockTable(
      'kind,value,quantity\nresistor,10k,5\nresistor,often,5\n\nsprocket,4,1\ncapacitor,10n,-2\ncapacitor,10n,1e9\ncoil,1mH,2',
    );
    const { good, bad } = readStockTable({ columns, rows });
    expect(good.map((g) => g.line)).toEqual([2, 8]);
    expect(bad.map((b) => [b.line, b.why])).toEqual([
      [3, expect.stringMatching(/“often” is not a resistance/)],
      [5, expect.stringMatching(/“sprocket” is no kind/)],
      [6, expect.stringMatching(/quantity.*must not be negative/)],
      [7, expect.stringMatching(/quantity/)],
    ]);
  });

  test('without a heading is typed lines, until its columns are named', () => {
    const table = stockTable('10k,50\n22k,20');
    expect(table.columns).toEqual([null, null]);
    const { rows } = table;
    const named = readStockTable({ columns: ['value', 'quantity'], rows });
    expect(named.good.map((g) => g.words.quantity)).toEqual([50, 20]);
  });

  const read = (...lines: string[]) => readStockTable(stockTable(lines.join('\n')));

  test('tells figures of devices; what it does not tell is as the offered one of that name has it', () => {
    const { good, bad } = read(
      'kind;name;GBW (MHz);Slew rate;Voltage noise [nV/√Hz];hFE;qty',
      'op-amp;quiet one;8;2.5 V/µs;4.5;;3',
      'op-amp;quick one;50 MHz;900 V/us;12 nV/rtHz;;1',
      'npn transistor;small one;;;;400;20',
      'op-amp;odd one;8;;;200;1',
      'op-amp;slow one;8;often;;;1',
      'op-amp;no one;-8;;;;1',
      'resistor;;8;;;;1',
    );
    expect(good.map((g) => g.words)).toMatchObject([
      {
        name: 'quiet one',
        quantity: 3,
        model: {
          gainBandwidthHz: 8e6,
          slewVoltsPerSecond: 2.5e6,
          inputVoltageNoise: 4.5e-9,
          outputOhms: expect.any(Number) as number,
        },
      },
      {
        model: { gainBandwidthHz: 50e6, slewVoltsPerSecond: 900e6, inputVoltageNoise: 12e-9 },
      },
      { kind: 'npn-transistor', model: { betaForward: 400 }, quantity: 20 },
    ]);
    expect(bad.map((b) => [b.line, b.why])).toEqual([
      [5, 'There is no current gain of an op-amp: leave “200” out.'],
      [6, expect.stringMatching(/^Slew rate: “often” is not a voltage/)],
      [7, expect.stringMatching(/^Gain-bandwidth product: .*(positive|at least|greater)/)],
      [8, expect.stringMatching(/names no value of the resistor/)],
    ]);
  });

  test('gives numbers without a unit the one of their column', () => {
    const { good, bad } = read(
      'Capacitance (nF),Tolerance %,Voltage (V),qty',
      '22,0.1,63,4',
      '4n7,5,63 V,4',
    );
    expect(bad).toEqual([]);
    expect(good.map((g) => g.words)).toMatchObject([
      { kind: 'capacitor', tolerance: 0.001, ratedVolts: 63, quantity: 4 },
      { kind: 'capacitor', value: 4.7e-9, tolerance: 0.05 },
    ]);
    expect(good[0].words.value).toBeCloseTo(22e-9, 20);
    expect(read('value (kΩ),power (mW)', '10,250').good[0].words).toMatchObject({
      kind: 'resistor',
      value: 10e3,
      ratedWatts: 0.25,
    });
    // What nobody could have meant as a heading takes no time, and says nothing.
    for (const odd of ['(', '[', '(]', ' ('])
      expect(stockTable(`${odd.repeat(200_000)},value\n1,10k`).units).toEqual([null, null]);
    // What is no unit says nothing.
    expect(read('value (see box),qty', '10k,2').good[0].words.value).toBe(10e3);
  });

  test('of far too many lines is refused', () => {
    expect(() => stockTable('10k\n'.repeat(20_001))).toThrow(/20001|20002/);
  });
});

/** Lines as people and programs spoil them. */
const cell = fc.oneof(
  fc.constantFrom(
    '10k',
    '22n',
    '4R7',
    '5 %',
    'film',
    '"',
    '""',
    '=SUM(A1)',
    '1e308',
    '-5',
    '∞',
    '',
    'resistor',
    'µ',
    '0x10',
    'NaN',
  ),
  fc.string({ maxLength: 12 }),
  fc.double().map(String),
);
const spoiled = fc
  .array(fc.array(cell, { maxLength: 6 }), { maxLength: 12 })
  .chain((rows) =>
    fc.constantFrom(',', ';', '\t', ' ').map((mark) => rows.map((r) => r.join(mark)).join('\n')),
  );

test('five hundred spoiled files never do more than be refused line by line', () => {
  fc.assert(
    fc.property(spoiled, fc.boolean(), (text, headed) => {
      const whole = headed ? `kind,value,quantity,tolerance,price\n${text}` : text;
      const table = stockTable(whole);
      for (const { good, bad } of [readStockTable(table), readStockLines(whole)]) {
        for (const { words } of good) {
          expect(words.value ?? 1).toBeGreaterThan(0);
          expect(Number.isInteger(words.quantity)).toBe(true);
        }
        for (const { line, why } of bad) {
          expect(line).toBeGreaterThan(0);
          expect(why.length).toBeGreaterThan(10);
        }
      }
    }),
    { numRuns: 500 },
  );
});
