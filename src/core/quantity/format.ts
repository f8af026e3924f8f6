import { QUANTITIES, type QuantityKind } from './kinds';
import type { DecimalMark } from './parse';

const SYMBOLS: Record<number, string> = {
  [-15]: 'f',
  [-12]: 'p',
  [-9]: 'n',
  [-6]: 'µ',
  [-3]: 'm',
  0: '',
  3: 'k',
  6: 'M',
  9: 'G',
};

export interface FormatOptions {
  /** Significant digits kept; trailing zeros are dropped. Default 3. */
  digits?: number;
  mark?: DecimalMark;
  /** "infix" prints 4k7 (the shortest form on a schematic); "plain" prints 4.7k. Default "infix". */
  style?: 'infix' | 'plain';
  /** Append the unit's symbol ("4.7 kΩ"). Implies the plain style. Default false. */
  unit?: boolean;
}

/**
 * Print a value in the shortest engineering form: 4700 -> "4k7", 2.2e-8 -> "22n", 3.3 Ω -> "3R3".
 *
 * Whatever is printed is read back by `parseQuantity` as the value rounded to `digits`.
 */
export function formatQuantity(
  value: number,
  kind: QuantityKind,
  options: FormatOptions = {},
): string {
  const { digits = 3, mark = 'point', style = 'infix', unit = false } = options;
  const info = QUANTITIES[kind];
  if (!Number.isFinite(value)) return '–';
  const { mantissa, exponent } = info.prefixed
    ? engineering(value, digits)
    : { mantissa: Number(value.toPrecision(digits)), exponent: 0 };
  if (beyondPrefixes(mantissa)) return scientific(value, kind, options);
  const symbol = SYMBOLS[exponent];
  const number = plainDigits(mantissa);
  const [whole, fraction] = number.split('.');

  if (unit || style === 'plain' || !info.prefixed) {
    const text = minus(mark === 'comma' ? number.replace('.', ',') : number);
    if (!unit) return `${text}${symbol}`;
    const spaced = `${symbol}${info.symbol}`;
    return spaced === '' ? text : `${text}${info.symbol === '°' ? '' : '\u00a0'}${spaced}`;
  }
  const letter = symbol || (kind === 'ohms' ? 'R' : undefined);
  if (fraction === undefined) return minus(`${whole}${symbol}`);
  if (letter === undefined)
    return minus((mark === 'comma' ? number.replace('.', ',') : number) + symbol);
  return minus(`${whole}${letter}${fraction}`);
}

/** A value with its unit as it stands in a sentence: "1.26 kHz". */
export const inWords = (value: number, kind: QuantityKind, digits = 4): string =>
  formatQuantity(value, kind, { digits, unit: true });

/** Split into a mantissa of 1..999 and an exponent divisible by three, rounded first so 999.96 becomes 1.00k. */
function engineering(value: number, digits: number): { mantissa: number; exponent: number } {
  if (value === 0) return { mantissa: 0, exponent: 0 };
  const rounded = Number(value.toPrecision(digits));
  const decade = Number(rounded.toExponential().split('e')[1]);
  const exponent = Math.max(-15, Math.min(9, 3 * Math.floor(decade / 3)));
  return {
    mantissa: Number(`${rounded.toExponential().split('e')[0]}e${decade - exponent}`),
    exponent,
  };
}

/** No prefix reaches these: a mantissa of more than six digits or less than a thousandth. */
const beyondPrefixes = (mantissa: number) =>
  mantissa !== 0 && !(Math.abs(mantissa) < 1e7 && Math.abs(mantissa) >= 1e-6);

/** A number with a power of ten, "1.2e15"; what reads it back knows this form. */
function scientific(value: number, kind: QuantityKind, options: FormatOptions): string {
  const { digits = 3, mark = 'point', unit = false } = options;
  const [mantissa, exponent] = Number(value.toPrecision(digits)).toExponential().split('e');
  const text = `${mark === 'comma' ? mantissa.replace('.', ',') : mantissa}e${Number(exponent)}`;
  const symbol = unit ? QUANTITIES[kind].symbol : '';
  return text.replace(/^-/, '−') + (symbol === '' ? '' : `\u00a0${symbol}`);
}

/** Digits without an exponent part. */
function plainDigits(x: number): string {
  const text = String(x);
  if (!text.includes('e')) return text;
  const places = Number(text.split('e-')[1] ?? 0);
  return x.toFixed(Math.min(100, places + 3)).replace(/\.?0+$/, '');
}

/** A true minus sign: the width of a digit, and never broken from its number. */
function minus(text: string): string {
  return text.replace('-', '−');
}

/** A number with a fixed count of decimals and a true minus; never "−0.00". */
export function formatFixed(value: number, decimals: number, mark: DecimalMark = 'point'): string {
  if (!Number.isFinite(value)) return '–';
  const text = value.toFixed(decimals);
  const clean = Number(text) === 0 ? text.replace('-', '') : text;
  return minus(mark === 'comma' ? clean.replace('.', ',') : clean);
}

/** The same with its sign always shown: +1.5, −0.3. */
export function formatSigned(value: number, mark: DecimalMark = 'point', decimals = 1): string {
  const text = formatFixed(value, decimals, mark);
  return Number(value.toFixed(decimals)) > 0 ? `+${text}` : text;
}
