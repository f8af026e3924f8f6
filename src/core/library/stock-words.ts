import { messageOf, ReedError } from '@/core/errors';
import { PART_KINDS } from '@/core/parts';
import type { PartKind } from '@/core/parts/part-kind';
import { mainQuantity } from '@/core/parts/quantities';
import { inWords } from '@/core/quantity/format';
import { parseQuantity, type DecimalMark } from '@/core/quantity/parse';
import { quoted } from '@/core/text';
import type { StockEntry } from './stock';

/** What is said of some parts of one kind and value; an entry of the drawer without its id. */
export type StockWords = Omit<StockEntry, 'format' | 'version' | 'id'>;

/** What a word of a line says. */
type Said = Partial<Omit<StockWords, 'kind' | 'value'>> & { kind?: string; valueText?: string };

/** Units by which a bare value tells what kind of part it is of, the likeliest kind first. */
const UNITS: readonly (readonly [RegExp, string])[] = [
  [/^[-+.\d]+(?:[pnuµμm]?H|[munµμ]\d*H)$|henr/i, 'inductor'],
  [/(?:farads?|[pnuµμm]F)$|^[\d.,]*[pnuµμ]\d*$/i, 'capacitor'],
  [/(?:[oO][hH][mM][sS]?|[ΩΩ])$|^\d*[.,]?\d*(?:[RrkKMG]\d*|[mM][eE][gG])$/, 'resistor'],
];

/** The kind of part that a value must be of; nothing where its unit leaves that open. */
export function kindOfValue(text: string): string | undefined {
  return UNITS.find(([pattern]) => pattern.test(text.trim()))?.[1];
}

/** What people call kinds, besides their own names. */
const CALLED: Readonly<Record<string, string>> = {
  r: 'resistor',
  res: 'resistor',
  c: 'capacitor',
  cap: 'capacitor',
  l: 'inductor',
  coil: 'inductor',
  choke: 'inductor',
  inductor: 'inductor',
  pot: 'potentiometer',
  trimmer: 'potentiometer',
  opamp: 'op-amp',
};

/** A kind of part by what somebody calls it. */
export function kindCalled(word: string): PartKind | undefined {
  const plain = word.trim().toLowerCase().replace(/s$/, '');
  const known = CALLED[plain] ?? plain;
  return PART_KINDS.find(
    (k) =>
      k.kind === known || k.noun.toLowerCase() === known || k.noun.replaceAll(' ', '-') === known,
  );
}

/** A number with its unit, written together or apart, anywhere in a line. */
const PIECES: readonly (readonly [RegExp, (found: RegExpExecArray) => Said])[] = [
  [/^(\d+)\s*(?:x|×|pcs?\b\.?|pieces?\b|off\b)\s*/i, ([, n]) => ({ quantity: Number(n) })],
  [/^(?:±|\+\/-|\+-)?\s*(\d+(?:[.,]\d+)?)\s*%\s*/, ([, n]) => ({ tolerance: number(n) / 100 })],
  [
    /^(?:±\s*)?(-?\d+(?:[.,]\d+)?)\s*ppm(?:\/K|\/°C)?\s*/i,
    ([, n]) => ({ ppmPerKelvin: number(n) }),
  ],
  [/^(\d+(?:[.,]\d+)?)\s*V(?:olts?|dc)?(?=\s|$)\s*/i, ([, n]) => ({ ratedVolts: number(n) })],
  [
    /^(\d+)\/(\d+)\s*W(?:atts?)?(?=\s|$)\s*/i,
    ([, a, b]) => ({ ratedWatts: Number(a) / Number(b) }),
  ],
  [
    /^(\d+(?:[.,]\d+)?)\s*(m?)W(?:atts?)?(?=\s|$)\s*/i,
    ([, n, m]) => ({ ratedWatts: number(n) / (m ? 1000 : 1) }),
  ],
  [/^(?:at|à|@)\s*(\d+(?:[.,]\d+)?)(?:\s*each)?(?=\s|$)\s*/i, ([, n]) => ({ price: number(n) })],
  [/^(\d+(?:[.,]\d+)?)\s*each(?=\s|$)\s*/i, ([, n]) => ({ price: number(n) })],
  [/^in\s+(.+)$/i, ([, place]) => ({ place: place.trim() })],
];

const number = (text: string): number => Number(text.replace(',', '.'));

/**
 * Parts as they are typed: “10x 22n 5 % film”, “470R 1% 0.25 W metal film 50 ppm at 0.04 in box 3”.
 * How many, the value, tolerance, temperature coefficient, what they stand, the price of one (after
 * “at”) and the place (after “in”, last) in any order; other words say the kind or what they are made of.
 *
 * @throws ReedError `document` saying what is missing or cannot be read
 */
export function stockLine(line: string, mark: DecimalMark = 'point'): StockWords {
  const said: Said = {};
  const words: string[] = [];
  let rest = line.trim();
  if (rest.length > 300) throw refuse('it is longer than 300 characters');
  while (rest !== '') {
    // A device is called by all the words behind its kind: “op-amp quiet bipolar, 10 MHz”.
    const device = words.some(isDevice);
    if (!device && /^[,;]/.test(rest)) {
      rest = rest.slice(1).trimStart();
      continue;
    }
    const piece = PIECES.map(([pattern, say]) => [pattern.exec(rest), say] as const).find(
      ([found]) => found,
    );
    if (piece) {
      const [found, say] = piece;
      Object.assign(said, say(found!));
      rest = rest.slice(found![0].length).trimStart();
      continue;
    }
    const whole = /^\S+/.exec(rest)![0];
    rest = rest.slice(whole.length).trimStart();
    const word = device ? whole : whole.replace(/[,;]+$/, '');
    if (word === '') continue;
    const unit = /^(?:ohms?|farads?|henr(?:y|ies)|[pnuµμm]?[FHΩΩ])(?=\s|$)/i.exec(rest)?.[0] ?? '';
    if (
      !device &&
      said.valueText === undefined &&
      /\d/.test(word) &&
      (unit !== '' || isValue(word))
    ) {
      said.valueText = word + unit;
      rest = rest.slice(unit.length).trimStart();
    } else words.push(word);
  }
  return wordsOf(said, words, mark);
}

/** Whether a word names a kind of part that has no value. */
const isDevice = (word: string): boolean => {
  const kind = kindCalled(word);
  return kind !== undefined && mainQuantity(kind) === undefined;
};

const isValue = (word: string): boolean =>
  kindOfValue(word) !== undefined || /^\d+(?:[.,]\d+)?(?:e[-+]?\d+|[pnuµμmkKMG]\d*)?$/.test(word);

function wordsOf(said: Said, words: readonly string[], mark: DecimalMark): StockWords {
  const { valueText, ...rest } = said;
  const named = words.map(kindCalled).findIndex((k) => k !== undefined);
  const kind = named >= 0 ? words[named] : undefined;
  const make = words.filter((_, i) => i !== named).join(' ');
  return stockWords({ ...rest, kind, valueText, ...(make === '' ? {} : { make }) }, mark);
}

/** What is said of parts, put together: from a line, or from the columns of a table. */
export function stockWords(
  { kind: called, valueText, ...rest }: Said & { name?: string },
  mark: DecimalMark = 'point',
): StockWords {
  const byValue = valueText === undefined ? undefined : kindOfValue(valueText);
  const found = kindCalled(called ?? byValue ?? '');
  if (!found) {
    if (called !== undefined) throw refuse(`${quoted(called)} is no kind of part known here`);
    throw refuse(
      valueText === undefined
        ? 'it names no value, as 22n or 4k7, and no kind of part'
        : `${quoted(valueText)} could be of any kind: give it a unit, or say resistor, capacitor or coil`,
    );
  }
  const main = mainQuantity(found);
  const value =
    main && valueText !== undefined ? parsed(valueText, main.quantity, mark) : undefined;
  if (value === undefined && main && ['resistor', 'capacitor', 'inductor'].includes(found.kind))
    throw refuse(`it names no value of the ${found.noun}`);
  const name = rest.name ?? nameOf(found, value, rest.make);
  return {
    note: '',
    quantity: 1,
    ...rest,
    kind: found.kind,
    ...(value === undefined ? {} : { value }),
    name,
  };
}

function parsed(
  text: string,
  kind: Parameters<typeof parseQuantity>[1],
  mark: DecimalMark,
): number {
  try {
    return parseQuantity(text, kind, mark);
  } catch (error) {
    throw refuse(messageOf(error).replace(/\.$/, ''));
  }
}

/** “22n film”, “4k7 resistor”. */
function nameOf(kind: PartKind, value: number | undefined, make = ''): string {
  const main = mainQuantity(kind);
  const printed = main && value !== undefined ? inWords(value, main.quantity) : '';
  return [printed, make, make === '' ? kind.noun : '']
    .filter((w) => w !== '')
    .join(' ')
    .slice(0, 120);
}

const refuse = (why: string) => new ReedError('document', `The part cannot be read: ${why}.`);
