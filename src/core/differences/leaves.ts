import { formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import { cut, quoted } from '@/core/text';

/*
 * Differences of plain documents, field by field, named by their own field names: what nothing better
 * is said of.
 */

/** A single value that differs, or is there on one side alone. */
export interface Leaf {
  /** Names of fields, and of list elements what they are called. */
  path: string[];
  before: unknown;
  after: unknown;
}

type Fields = Readonly<Record<string, unknown>>;

const isFields = (x: unknown): x is Fields =>
  typeof x === 'object' && x !== null && !Array.isArray(x);

/** A list of things that go by an id is compared by it, any other by place. */
function named(list: readonly unknown[]): Map<string, unknown> | null {
  const found = new Map<string, unknown>();
  for (const one of list) {
    if (!isFields(one) || typeof one.id !== 'string' || found.has(one.id)) return null;
    found.set(one.id, one);
  }
  return found;
}

/** Numbers and words alone: said as one thing, such as a place. */
const isShortList = (list: readonly unknown[]) =>
  list.length <= 6 && list.every((x) => typeof x !== 'object' || x === null);

/** All values in which two documents differ. What is the same object on both sides is passed over. */
export function leavesBetween(before: unknown, after: unknown, path: string[] = []): Leaf[] {
  if (before === after) return [];
  if (isFields(before) && isFields(after)) {
    const keys = new Set([...Object.keys(before), ...Object.keys(after)]);
    return [...keys].flatMap((key) =>
      key === 'id' ? [] : leavesBetween(before[key], after[key], [...path, key]),
    );
  }
  if (Array.isArray(before) && Array.isArray(after)) {
    const [b, a] = [before as unknown[], after as unknown[]];
    const [was, is] = [named(b), named(a)];
    if (was && is && was.size + is.size > 0) return betweenNamed(was, is, path);
    if (isShortList(b) && isShortList(a))
      return printed(b) === printed(a) ? [] : [{ path, before: b, after: a }];
    const most = Math.max(b.length, a.length);
    return Array.from({ length: most }, (_, i) =>
      leavesBetween(b[i], a[i], [...path, String(i + 1)]),
    ).flat();
  }
  return printed(before) === printed(after) ? [] : [{ path, before, after }];
}

function betweenNamed(
  was: ReadonlyMap<string, unknown>,
  is: ReadonlyMap<string, unknown>,
  path: string[],
): Leaf[] {
  const ids = new Set([...was.keys(), ...is.keys()]);
  const found = [...ids].flatMap((id) => {
    const one = (is.get(id) ?? was.get(id)) as Fields;
    const name = typeof one.name === 'string' && one.name !== '' ? one.name : id;
    return leavesBetween(was.get(id), is.get(id), [...path, quoted(name)]);
  });
  const order = (ids: Iterable<string>, other: ReadonlyMap<string, unknown>) =>
    [...ids].filter((id) => other.has(id)).join(' ');
  return order(was.keys(), is) === order(is.keys(), was)
    ? found
    : [...found, { path: [...path, 'order'], before: 'as it was', after: 'another' }];
}

const printed = (x: unknown): string => JSON.stringify(x) ?? '';

/** Endings of field names, and what they say of the number. */
const UNITS: readonly (readonly [ending: string, kind: QuantityKind | null, after: string])[] = [
  ['PerKelvin', null, ' a kelvin'],
  ['PerSecond', null, ' a second'],
  ['Ohms', 'ohms', ''],
  ['Farads', 'farads', ''],
  ['Henries', 'henries', ''],
  ['Hz', 'hertz', ''],
  ['Volts', 'volts', ''],
  ['Amps', 'amps', ''],
  ['Seconds', 'seconds', ''],
  ['Siemens', 'siemens', ''],
  ['Db', 'decibels', ''],
  ['Degrees', 'degrees', ''],
  ['Metres', null, ' m'],
  ['Watts', null, ' W'],
  ['Kelvins', null, ' K'],
  ['Percent', null, ' %'],
];

function unitOf(field: string): (typeof UNITS)[number] | undefined {
  return UNITS.find(([ending]) => field.endsWith(ending) || field === ending.toLowerCase());
}

/** Names of fields that say little when they are taken apart. */
const NAMES: Readonly<Record<string, string>> = {
  q: 'Q',
  lowerHz: 'lower edge',
  upperHz: 'upper edge',
  gainDb: 'gain',
  toHz: 'to',
  fromHz: 'from',
  withinDb: 'within',
};

/** “edgeHz” is the edge, “oneReel” one reel. */
function fieldName(field: string): string {
  if (field in NAMES) return NAMES[field];
  const unit = unitOf(field)?.[0];
  const bare =
    unit && field.length > unit.length ? field.slice(0, field.length - unit.length) : field;
  return bare.replace(/([a-z])([A-Z0-9])/g, '$1 $2').toLowerCase();
}

/** The place of a leaf in words; quoted names and counts stay as they are. */
export const pathWords = (path: readonly string[]): string =>
  path.map((step) => (/^[“\d]/.test(step) ? step : fieldName(step))).join(', ');

/** Longest text of somebody's own that is repeated. */
const LONGEST = 120;

/**
 * A value in words.
 *
 * @param field its name, whose ending says the unit
 * @param digits significant ones of physical values
 * @returns null for what is not there
 */
export function valueWords(value: unknown, field = '', digits = 4): string | null {
  if (value === undefined || value === null) return null;
  switch (typeof value) {
    case 'number': {
      const [, kind, after] = unitOf(field) ?? ['', null, ''];
      return kind === null
        ? `${formatQuantity(value, 'ratio', { digits: digits + 2 })}${after}`
        : formatQuantity(value, kind, { digits, unit: true });
    }
    case 'boolean':
      return value ? 'yes' : 'no';
    case 'string':
      return value.length > LONGEST ? `${cut(value, LONGEST)}…` : value;
    default:
      break;
  }
  if (Array.isArray(value) && isShortList(value))
    return value.map((x) => valueWords(x, field, digits) ?? 'none').join(', ');
  const all = isFields(value)
    ? Object.entries(value).flatMap(([key, one]) => {
        const words = key === 'id' ? null : valueWords(one, key, digits);
        return words === null ? [] : [`${fieldName(key)} ${words}`];
      })
    : [`${(value as unknown[]).length} of them`];
  const words = all.join(', ');
  return words.length > LONGEST ? `${cut(words, LONGEST)}…` : words;
}

/** Digits that tell any two numbers apart. */
const ALL_DIGITS = 17;

/** Both sides of a leaf in words, in as many digits as tell them apart. */
export function leafWords({ path, before, after }: Leaf): {
  before: string | null;
  after: string | null;
} {
  const field = path.at(-1);
  const sides = (digits: number) => ({
    before: valueWords(before, field, digits),
    after: valueWords(after, field, digits),
  });
  const short = sides(4);
  if (short.before !== short.after) return short;
  const long = sides(ALL_DIGITS);
  return long.before !== long.after
    ? long
    : { before: short.before ?? 'not said', after: `${short.after ?? 'not said'}, otherwise` };
}

/** A document without some of its fields. */
export const without = (document: object, fields: readonly string[]): Fields =>
  Object.fromEntries(Object.entries(document).filter(([field]) => !fields.includes(field)));
