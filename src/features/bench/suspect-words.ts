import type { Comparison } from '@/core/bench/compare';
import { listed, nameIn, placeWords, type Names } from '@/core/bench/place-words';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { Answered } from '@/core/suspects/answer';
import type { NextStep } from '@/core/suspects/next-step';
import type { Culprit, Suspect } from '@/core/suspects/rank';
import type { Mistake } from '@/core/suspects/suspects';

/** “31 % high”, or how many times where it is far off. */
export function offWords(factor: number, mark: DecimalMark): string {
  if (factor >= 2) return `${formatQuantity(factor, 'ratio', { digits: 3, mark })} times`;
  if (factor <= 0.5) return `1/${formatQuantity(1 / factor, 'ratio', { digits: 3, mark })} of it`;
  const percent = Math.abs(factor - 1) * 100;
  return `${formatFixed(percent, percent < 10 ? 1 : 0, mark)} % ${factor < 1 ? 'low' : 'high'}`;
}

/** “C1, 31 % high” and for a pair “R1 and C2 together”. */
export function suspectName({ parts }: Suspect, mark: DecimalMark, names: Names = {}): string {
  const whole = listed(
    parts.map((p) => p.id),
    names,
  );
  return parts.length === 1 ? `${whole}, ${offWords(parts[0].factor, mark)}` : `${whole} together`;
}

const QUANTITY_OF_LETTER: Readonly<Record<string, QuantityKind>> = {
  R: 'ohms',
  C: 'farads',
  L: 'henries',
};

/** The quantity of a part by the letter that it is numbered behind. */
export const quantityOfPart = (id: string): QuantityKind =>
  QUANTITY_OF_LETTER[/([A-Z])[a-z]*\d*$/.exec(id)?.[1] ?? ''] ?? 'ratio';

/** “7n3 for 5n6”. */
export function valueWords(
  values: Comparison['values'][number],
  parts: readonly Culprit[],
  mark: DecimalMark,
): string {
  if (parts.length > 1) return parts.map((p) => offWords(p.factor, mark)).join(', ');
  const [{ id, should, seems }] = values;
  if (should === null || seems === null) return '';
  const kind = quantityOfPart(id);
  const print = (value: number) => formatQuantity(value, kind, { digits: 3, mark });
  return `${print(seems)} for ${print(should)}`;
}

/** “explains 97 %, alike: none”. */
export function explainedWords({ explained, alike }: Suspect, names: Names = {}): string {
  const others = alike.map((group) => listed(group, names)).join(', ');
  return `explains ${Math.round(explained * 100)} % of the difference${
    alike.length > 0 ? `; as well as ${others}` : ''
  }`;
}

const MISTAKE_WORDS: Readonly<Record<string, (parts: string) => string>> = {
  swapped: (parts) => `${parts} swapped`,
  decade: (parts) => `${parts} a decade off`,
  missing: (parts) => `${parts} missing, or not soldered`,
  shorted: (parts) => `${parts} bridged`,
  reversed: (parts) => `${parts} the wrong way round`,
  'no-ground': (parts) => `${parts} without its ground`,
  'slow-op-amp': (parts) => `${parts} too slow`,
  'source-loading': () => 'a source of high resistance',
  'probe-loading': () => 'a probe that the circuit feels',
};

/** A mistake in words, and what it comes to where that is a matter of degree. */
export function mistakeWords(
  { kind, parts, value }: Pick<Mistake, 'kind' | 'parts' | 'value'>,
  mark: DecimalMark,
  names: Names = {},
): string {
  const words = MISTAKE_WORDS[kind](listed(parts, names));
  if (!value) return words;
  const quantity: QuantityKind =
    value.field === 'gainBandwidthHz' ? 'hertz' : (value.field as QuantityKind);
  return `${words}: about ${formatQuantity(value.value, quantity, { digits: 2, unit: true, mark })}`;
}

const whose = (parts: readonly string[], names: Names): string =>
  parts.length === 0 ? 'nothing wrong' : listed(parts, names);

const atPlace = (net: string, meeting: Comparison['meeting'], names: Names): string => {
  const words = placeWords(net, meeting, names);
  return words.startsWith('where') ? words : `at ${words}`;
};

/** What to measure next, and what each possibility says. */
export function nextWords(
  next: NextStep,
  meeting: Comparison['meeting'],
  mark: DecimalMark,
  names: Names = {},
): string {
  switch (next.kind) {
    case 'level': {
      const says = next.expected.map(
        ({ parts, db }) => `${formatFixed(db, 1, mark)} dB with ${whose(parts, names)}`,
      );
      return `Measure the level ${atPlace(next.net, meeting, names)}, at ${formatQuantity(next.hz, 'hertz', { digits: 2, unit: true, mark })}, the source as it was: ${says.join(', ')}.`;
    }
    case 'resistance': {
      const says = next.expected.map(
        ({ parts, ohms }) =>
          `${formatQuantity(ohms, 'ohms', { digits: 3, unit: true, mark })} with ${whose(parts, names)}`,
      );
      return `Power off, capacitors empty: measure the resistance from ${next.between.map((net) => placeWords(net, meeting, names)).join(' to ')}: ${says.join(', ')}.`;
    }
    case 'part': {
      const kind = quantityOfPart(next.part);
      const says = next.expected.map(
        ({ parts, value }) =>
          `${formatQuantity(value, kind, { digits: 3, unit: true, mark })} with ${whose(parts, names)}`,
      );
      return `Power off: lift one leg of ${nameIn(names, next.part)} and measure it: ${says.join(', ')}.`;
    }
  }
}

/** What is read where the next measurement is done. */
export function quantityOfNext(next: NextStep): QuantityKind {
  switch (next.kind) {
    case 'level':
      return 'decibels';
    case 'resistance':
      return 'ohms';
    case 'part':
      return quantityOfPart(next.part);
  }
}

/** Likelier than this after the answer, it is settled. */
const SETTLED = 0.95;

/** What an answer says. */
export function answerWords(says: readonly Answered[], names: Names = {}): string {
  const [first] = says as readonly (Answered | undefined)[];
  if (!first) return 'That fits none of them: measure once more, or something else is wrong.';
  if (first.share >= SETTLED) return `That says ${whose(first.parts, names)}.`;
  const left = says.filter((s) => s.share >= 1 - SETTLED).map((s) => whose(s.parts, names));
  return `That leaves ${left.join(' or ')}.`;
}
