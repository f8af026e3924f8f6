import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { QUANTITIES, type QuantityKind } from './kinds';

export type DecimalMark = 'point' | 'comma';

/** SI prefixes as people type them. `M` is mega and `m` milli; `meg` avoids the doubt. */
const PREFIXES: Record<string, number> = {
  f: 1e-15,
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  meg: 1e6,
  G: 1e9,
};

/** Prefixes written out; "kilohm" and "megohm" drop a vowel. */
const SPELLED: Record<string, string> = {
  pico: 'p',
  nano: 'n',
  micro: 'u',
  milli: 'm',
  kilo: 'k',
  kil: 'k',
  mega: 'M',
  meg: 'M',
  giga: 'G',
};

/** A value longer than this was not typed by a person. */
export const LONGEST_QUANTITY = 40;

const PREFIX_PATTERN = 'meg|Meg|MEG|[fpnuµμmkKMG]';

/**
 * Read an engineering value as it is written on parts and schematics.
 *
 * Accepts `4k7`, `4.7k`, `4R7`, `4700`, `22n`, `0.47u`, `0.47 µF`, `1meg`, `2,2k`, `1e3`, `-3 dB`.
 * A prefix letter (or the kind's own unit, as in `4R7` ohms or `3V3` volts) may stand in place of the
 * decimal mark, also in front: `R47`, `n47`. Spaces may stand around the unit, not between digits.
 * Prefixes may be spelled out before a spelled unit: `10 kilohm`, `47 nanofarads`.
 *
 * The other mark is a decimal mark too, except where it could be meant to group thousands: "1,000"
 * where `mark` is "point", "1.000" where it is "comma". With "comma", "2,500" is refused as well:
 * nobody writes the zeros of a decimal fraction out, and data sheets group thousands like that. Such
 * text is refused, not guessed at.
 *
 * @param text what was typed
 * @param kind what is being asked for: decides which unit may follow
 * @returns the value in SI units
 * @throws ReedError `quantity`, saying what was expected
 */
export function parseQuantity(
  text: string,
  kind: QuantityKind,
  mark: DecimalMark = 'point',
): number {
  const { marks = '', example, noun } = QUANTITIES[kind];
  const refuse = (why: string): ReedError =>
    new ReedError(
      'quantity',
      `${quoted(text)} is not ${noun}: ${why}. Expected something like ${example}.`,
    );

  if (text.length > LONGEST_QUANTITY)
    throw refuse(`it is longer than ${LONGEST_QUANTITY} characters`);
  const trimmed = text.trim().replace(/[\u2212\u2013]/g, '-');
  if (trimmed === '') throw refuse('nothing was entered');
  if (/[\d.,]\s+[\d.,]/.test(trimmed))
    throw refuse('a space stands between its digits; write them together');
  const body = withPointAsMark(
    spelledOut(withoutUnit(trimmed.replace(/\s+/g, ''), kind), text),
    mark,
    refuse,
  );

  const letter = `${PREFIX_PATTERN}${marks === '' ? '' : `|[${marks}]`}`;
  // 4.7k and 4700; 4k7 and 4R7; k47 and R47.
  const plain = new RegExp(
    `^([-+]?(?:\\d+\\.?\\d*|\\.\\d+)(?:[eE][-+]?\\d+)?)(${PREFIX_PATTERN})?$`,
  ).exec(body);
  const inside = new RegExp(`^([-+]?)(\\d*)(${letter})(\\d+)$`).exec(body);
  let value: number;
  if (plain) {
    value = scaled(plain[1], prefixExponent(plain[2]));
  } else if (inside) {
    const [, sign, whole, between, fraction] = inside;
    value = scaled(`${sign}${whole || '0'}.${fraction}`, prefixExponent(between));
  } else {
    const stranger = /[^\d.eE+-]+/.exec(body)?.[0];
    throw refuse(
      stranger ? `“${stranger}” is no prefix or unit known here` : 'the number could not be read',
    );
  }
  if (!Number.isFinite(value)) throw refuse('the number is too large');
  return value;
}

/** The unit goes from the end, the longest spelling first. */
function withoutUnit(body: string, kind: QuantityKind): string {
  for (const unit of QUANTITIES[kind].units) {
    const end = body.slice(-unit.length);
    if (body.length <= unit.length || end.toLowerCase() !== unit.toLowerCase()) continue;
    // A small f alone is femto; behind another prefix it is the farad of "22nf".
    if (unit === 'F' && end === 'f' && !/[fpnuµμmk]f$/i.test(body)) continue;
    return body.slice(0, -unit.length);
  }
  return body;
}

/** "10kilo" as "10k", where a unit in full stood behind it. */
function spelledOut(body: string, text: string): string {
  if (!/(ohms?|farads?|henr(?:y|ies)|hertz|volts?|amps?|seconds|siemens)\s*$/i.test(text))
    return body;
  const spelled = /^(.*\d)(pico|nano|micro|milli|kilo?|mega?|giga)$/i.exec(body);
  return spelled ? spelled[1] + SPELLED[spelled[2].toLowerCase()] : body;
}

function prefixExponent(prefix: string | undefined): number {
  if (!prefix) return 0;
  const factor = PREFIXES[prefix] ?? PREFIXES[prefix.toLowerCase() === 'meg' ? 'meg' : ''];
  return factor === undefined ? 0 : Math.round(Math.log10(factor));
}

/** The exponent is joined to the digits as text, so that "4.7k" is exactly 4700 and "22n" exactly 22e-9. */
function scaled(digits: string, exponent: number): number {
  const [mantissa, own] = digits.toLowerCase().split('e');
  return Number(`${mantissa}e${Number(own ?? 0) + exponent}`);
}

function withPointAsMark(
  body: string,
  mark: DecimalMark,
  refuse: (why: string) => ReedError,
): string {
  const commas = body.split(',').length - 1;
  const points = body.split('.').length - 1;
  if (commas + points > 1) throw refuse('it has more than one decimal mark');
  const grouped =
    mark === 'point'
      ? /^([-+]?[1-9]\d{0,2}),(\d{3})(?!\d)(.*)$/
      : /^([-+]?[1-9]\d{0,2})(?:\.(?=\d{3}(?!\d))|,(?=\d\d0(?!\d)))(\d{3})(.*)$/;
  const doubtful = grouped.exec(body);
  if (doubtful) {
    const [, whole, rest, behind] = doubtful;
    const fraction = rest.replace(/0+$/, '');
    const shown = fraction === '' ? whole : `${whole}${mark === 'point' ? '.' : ','}${fraction}`;
    throw refuse(`it could mean ${whole}${rest}${behind} or ${shown}${behind}; write one of them`);
  }
  return body.replace(',', '.');
}
