import { DIP_UP, USUAL_WANTED, type CrossoverFigure, type CrossoverReadingId } from './readings';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Crossover } from '@/core/sheet/crossover-schema';

/** One reading of a crossover: what is wanted of it, and how a figure is said. */
export interface ReadingLine {
  id: CrossoverReadingId;
  name: string;
  wanted: {
    value: number;
    kind: QuantityKind;
    words: string;
    change: (x: number) => Partial<Crossover>;
  };
  print: (figure: CrossoverFigure) => string;
  /** Whether a figure is as wanted. */
  met: (figure: CrossoverFigure) => boolean;
  /** What is said beside the verdict. */
  more?: (figure: CrossoverFigure) => string;
}

/** All readings of a crossover, as they are said and judged. */
export function readingLines(
  crossover: Crossover,
  mark: DecimalMark,
  nameOf: (id: string) => string,
): ReadingLine[] {
  const { fromHz, toHz, withinDb, leastOhms, splitsHz, loudVolts } = crossover;
  const wanted = { ...USUAL_WANTED, ...crossover.wanted };
  const hz = (x: number) => formatQuantity(x, 'hertz', { unit: true, mark, digits: 2 });
  const db = (x: number, digits = 1) => `${formatFixed(x, digits, mark)} dB`;
  const ohms = (x: number) => formatQuantity(x, 'ohms', { unit: true, mark, digits: 2 });
  const also = (change: Partial<typeof wanted>): Partial<Crossover> => ({
    wanted: { ...crossover.wanted, ...change },
  });
  const at = ({ atHz }: CrossoverFigure) => (atHz === undefined ? '' : ` at ${hz(atHz)}`);
  return [
    {
      id: 'sum',
      name: `On axis, ${hz(fromHz)} to ${hz(toHz)}`,
      wanted: {
        value: withinDb,
        kind: 'decibels',
        words: `within ±${db(withinDb)}`,
        change: (x) => ({ withinDb: x }),
      },
      print: (f) => `±${db(f.value)}`,
      met: (f) => f.value <= withinDb,
    },
    {
      id: 'impedance',
      name: 'Least impedance',
      wanted: {
        value: leastOhms,
        kind: 'ohms',
        words: `at least ${ohms(leastOhms)}`,
        change: (x) => ({ leastOhms: x }),
      },
      print: (f) => `${ohms(f.value)}${at(f)}, ${formatFixed(f.degrees ?? 0, 0, mark)}°`,
      met: (f) => f.value >= leastOhms,
      more: (f) =>
        [
          f.value >= leastOhms ? 'met' : 'too hard a load: the amplifier’s rating comes first',
          ...(f.hardest ? [`as hard as ${ohms(f.hardest.ohms)} at ${hz(f.hardest.atHz)}`] : []),
        ].join('; '),
    },
    ...(splitsHz.length === 0
      ? []
      : [
          {
            id: 'phase' as const,
            name: 'Phase apart where ways meet',
            wanted: {
              value: wanted.phaseApartDegrees,
              kind: 'degrees' as const,
              words: `within ±${formatFixed(wanted.phaseApartDegrees, 0, mark)}°`,
              change: (x: number) => also({ phaseApartDegrees: x }),
            },
            print: (f: CrossoverFigure) => `${formatFixed(f.value, 0, mark)}°${at(f)}`,
            met: (f: CrossoverFigure) => Math.abs(f.value) <= wanted.phaseApartDegrees,
          },
          {
            id: 'null' as const,
            name: 'Null, every second way turned over',
            wanted: {
              value: wanted.nullDb,
              kind: 'decibels' as const,
              words: `at least ${db(wanted.nullDb, 0)}`,
              change: (x: number) => also({ nullDb: x }),
            },
            print: (f: CrossoverFigure) => db(f.value, 0),
            met: (f: CrossoverFigure) => f.value >= wanted.nullDb,
          },
        ]),
    {
      id: 'dip',
      name: `${DIP_UP}° up, worst dip`,
      wanted: {
        value: wanted.dipDb,
        kind: 'decibels',
        words: `at most ${db(wanted.dipDb)}`,
        change: (x) => also({ dipDb: x }),
      },
      print: (f) => `${db(f.value)}${at(f)}`,
      met: (f) => f.value <= wanted.dipDb,
    },
    {
      id: 'heat',
      name: `Hottest resistor at ${formatQuantity(loudVolts, 'volts', { unit: true, mark, digits: 2 })}, music`,
      wanted: {
        value: wanted.resistorWatts,
        kind: 'ratio',
        words: `at most ${formatFixed(wanted.resistorWatts, 1, mark)} W`,
        change: (x) => also({ resistorWatts: x }),
      },
      print: (f) => `${nameOf(f.part ?? '')} ${formatFixed(f.value, 1, mark)} W`,
      met: (f) => f.value <= wanted.resistorWatts,
      more: (f) =>
        `${rating(f.value)} W part, clear of the cabinet wall; a sine makes ${formatFixed(f.sineWatts ?? 0, 0, mark)} W`,
    },
  ];
}

/** Ratings that are sold; twice the heat is asked of one. */
const RATINGS = [1, 2, 5, 10, 20, 50, 100];
const rating = (watts: number): number =>
  RATINGS.find((r) => r >= 2 * watts) ?? Math.ceil(2 * watts);
