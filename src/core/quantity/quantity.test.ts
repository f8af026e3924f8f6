import fc from 'fast-check';
import { formatFixed, formatQuantity } from './format';
import { QUANTITIES, type QuantityKind } from './kinds';
import { parseQuantity } from './parse';
import { nearestPreferred, preferredNumbers, SERIES_NAMES } from './series';
import { ReedError } from '@/core/errors';

describe('reading engineering values', () => {
  test.each([
    ['4k7', 4700],
    ['4.7k', 4700],
    ['4,7k', 4700],
    ['4R7', 4.7],
    ['4700', 4700],
    ['1meg', 1e6],
    ['1M', 1e6],
    ['2M2', 2.2e6],
    ['R', NaN],
    ['10 kΩ', 10_000],
    ['10kohm', 10_000],
    ['47R', 47],
    ['1e3', 1000],
    ['2,2k', 2200],
    ['100 m', 0.1],
    ['.5k', 500],
    ['10 kilohm', 10_000],
    ['10 kiloohms', 10_000],
    ['2.2 megohm', 2.2e6],
    ['R47', 0.47],
    ['k47', 470],
    ['-4R7', -4.7],
    ['4 k7', 4700],
  ])('%s ohm', (text, ohms) => {
    if (Number.isNaN(ohms)) expect(() => parseQuantity(text, 'ohms')).toThrow(ReedError);
    else expect(parseQuantity(text, 'ohms')).toBe(ohms);
  });

  test.each([
    ['22n', 22e-9],
    ['0.47u', 0.47e-6],
    ['0.47 µF', 0.47e-6],
    ['0.47μF', 0.47e-6],
    ['4n7', 4.7e-9],
    ['100pF', 100e-12],
    ['2,2 nF', 2.2e-9],
    ['1F', 1],
    ['47 nanofarads', 47e-9],
    ['0.1 microfarad', 1e-7],
    ['1f', 1e-15],
    ['470fF', 470e-15],
    ['22nf', 22e-9],
    ['0.47uf', 0.47e-6],
    ['n47', 0.47e-9],
    ['p33', 0.33e-12],
    ['1F5', 1.5],
  ])('%s farad', (text, farads) => expect(parseQuantity(text, 'farads')).toBe(farads));

  test('levels, with either minus sign', () => {
    expect(parseQuantity('−3 dB', 'decibels')).toBe(-3);
    expect(parseQuantity('-0.5', 'decibels')).toBe(-0.5);
  });

  test.each(['', 'abc', '4k7k', '4..7', '1,2,3', '4x7', '1.000,5', '--4', '12 V'])(
    'refuses “%s” and says what was expected',
    (text) => {
      expect(() => parseQuantity(text, 'ohms')).toThrow(/Expected something like 4k7/);
    },
  );

  test('does not guess at a comma that could group thousands', () => {
    expect(() => parseQuantity('1,000', 'ohms')).toThrow(/could mean 1000 or 1;/);
    expect(() => parseQuantity('1.000', 'ohms', 'comma')).toThrow(/could mean 1000 or 1;/);
    expect(() => parseQuantity('2,500', 'ohms', 'comma')).toThrow(/could mean 2500 or 2,5;/);
    expect(() => parseQuantity('1.250', 'hertz', 'comma')).toThrow(/could mean 1250 or 1,25;/);
    expect(parseQuantity('2,5', 'ohms', 'comma')).toBe(2.5);
    expect(parseQuantity('1,588', 'ohms', 'comma')).toBe(1.588);
    expect(parseQuantity('1.588', 'ohms')).toBe(1.588);
  });

  test.each([
    ['1,000k', 'ohms', 'point', /could mean 1000k or 1k;/],
    ['1.000k', 'ohms', 'comma', /could mean 1000k or 1k;/],
    ['2,500 Hz', 'hertz', 'comma', /could mean 2500 or 2,5;/],
    ['4R7', 'farads', 'point', /“R” is no prefix/],
    ['47R', 'farads', 'point', /“R” is no prefix/],
    ['1V2', 'ohms', 'point', /“V” is no prefix/],
    ['3R3', 'volts', 'point', /“R” is no prefix/],
    ['4 7k', 'ohms', 'point', /space stands between its digits/],
    ['4. 7k', 'ohms', 'point', /space stands between its digits/],
    ['R', 'ohms', 'point', /Expected/],
  ] as const)('%s as %s (decimal %s) is refused', (text, kind, mark, why) =>
    expect(() => parseQuantity(text, kind, mark)).toThrow(why),
  );

  test('what nobody types is refused briefly', () => {
    const long = '9'.repeat(5000);
    expect(() => parseQuantity(long, 'ohms')).toThrow(/longer than 40 characters/);
    try {
      parseQuantity(long, 'ohms');
    } catch (error) {
      expect((error as Error).message.length).toBeLessThan(160);
    }
  });
});

describe('printing', () => {
  test.each([
    [4700, 'ohms', '4k7'],
    [10_000, 'ohms', '10k'],
    [3.3, 'ohms', '3R3'],
    [0.47, 'ohms', '470m'],
    [999.96, 'ohms', '1k'],
    [22e-9, 'farads', '22n'],
    [4.7e-7, 'farads', '470n'],
    [1.94e-9, 'farads', '1n94'],
    [3400, 'hertz', '3k4'],
    [-3.5, 'decibels', '−3.5'],
    [0, 'ohms', '0'],
  ] as const)('%d %s is %s', (value, kind, text) => expect(formatQuantity(value, kind)).toBe(text));

  test('beyond the prefixes with a power of ten', () => {
    expect(formatQuantity(1e308, 'hertz', { unit: true })).toBe('1e308\u00a0Hz');
    expect(formatQuantity(-2.5e-30, 'farads')).toBe('−2.5e-30');
    expect(formatQuantity(1e299, 'ratio', { mark: 'comma' })).toBe('1e299');
    for (const x of [1.25e20, -3e-40, 7e150]) {
      const text = formatQuantity(x, 'ohms', { mark: 'comma' });
      expect(parseQuantity(text, 'ohms', 'comma')).toBe(x);
    }
  });

  test('with its unit, and with a decimal comma', () => {
    expect(formatQuantity(4700, 'ohms', { unit: true })).toBe('4.7\u00a0kΩ');
    expect(formatQuantity(4700, 'ohms', { unit: true, mark: 'comma' })).toBe('4,7\u00a0kΩ');
    expect(formatFixed(-0.0001, 2)).toBe('0.00');
  });

  test('whatever is printed reads back to the digits shown, of every kind, over fifteen decades and more', () => {
    const kinds = Object.keys(QUANTITIES) as QuantityKind[];
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 9.999, noNaN: true }),
        fc.integer({ min: -17, max: 12 }),
        fc.boolean(),
        fc.constantFrom(...kinds),
        fc.record({
          digits: fc.integer({ min: 1, max: 8 }),
          style: fc.constantFrom('infix', 'plain'),
          mark: fc.constantFrom('point', 'comma'),
          unit: fc.boolean(),
        }),
        (m, e, negative, kind, options) => {
          const value = (negative ? -m : m) * 10 ** e;
          const text = formatQuantity(value, kind, options);
          const read = parseQuantity(text, kind, options.mark);
          expect(read / Number(value.toPrecision(options.digits))).toBeCloseTo(1, 12);
        },
      ),
      { numRuns: 1000 },
    );
  });
});

describe('preferred numbers', () => {
  test('the decades have their nominal counts and rise', () => {
    for (const name of SERIES_NAMES) {
      const values = preferredNumbers(name);
      expect(values).toHaveLength(Number(name.slice(1)));
      expect([...values].sort((a, b) => a - b)).toEqual(values);
    }
    expect(preferredNumbers('E12')).toEqual([
      1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2,
    ]);
    expect(preferredNumbers('E192')).toContain(9.2);
  });

  test('no series value is nearer than the one chosen', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-12, max: 1e7, noNaN: true }),
        fc.constantFrom(...SERIES_NAMES),
        (value, name) => {
          const chosen = nearestPreferred(value, name);
          const error = Math.abs(Math.log(chosen / value));
          for (const n of preferredNumbers(name)) {
            for (let d = -13; d <= 8; d++)
              expect(error).toBeLessThanOrEqual(Math.abs(Math.log((n * 10 ** d) / value)) + 1e-12);
          }
        },
      ),
      { numRuns: 50 },
    );
  });
});
