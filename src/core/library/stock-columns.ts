import { partKindOf } from '@/core/parts';
import { FIGURED_KINDS, figuresOf } from '@/core/parts/device-figures';

/** What a column of a table of parts can say. */
export const STOCK_COLUMNS = [
  'kind',
  'value',
  'quantity',
  'tolerance',
  'make',
  'temperature coefficient',
  'voltage rating',
  'power rating',
  'price',
  'place',
  'name',
  'note',
] as const;
export type StockColumn = (typeof STOCK_COLUMNS)[number];

/** A figure of devices, by what it is called. */
export type FigureColumn = `figure: ${string}`;
export type TableColumn = StockColumn | FigureColumn;

const figureColumn = (label: string): FigureColumn => `figure: ${label}`;

/** The figure that a column tells; nothing where it tells anything else. */
export const figureNamed = (column: TableColumn | null): string | undefined =>
  column?.startsWith('figure: ') ? column.slice('figure: '.length) : undefined;

/** Every figure that a column can tell, once. */
export const FIGURE_COLUMNS: readonly FigureColumn[] = [
  ...new Set(FIGURED_KINDS.flatMap((kind) => figuresOf(partKindOf(kind)).map((f) => f.label))),
].map(figureColumn);

/** What people write over columns. */
const HEADINGS: readonly (readonly [RegExp, TableColumn])[] = [
  [/^(kind|type|part|component|what)$/, 'kind'],
  [/^(value|resistance|capacitance|inductance|ohms|farads|henries|wert)$/, 'value'],
  [/^(quantity|qty|count|pieces|pcs|number|amount|stock|on hand|in stock|how many)$/, 'quantity'],
  [/^(tolerance|tol)$/, 'tolerance'],
  [/^(make|material|dielectric|film|construction|made of|technology)$/, 'make'],
  [/^(temperature coefficient|tempco|tc|tcr|ppm|ppm per k(elvin)?)$/, 'temperature coefficient'],
  [/^(voltage rating|voltage|volts|rated volts|v)$/, 'voltage rating'],
  [/^(power rating|power|watts|rated watts|w)$/, 'power rating'],
  [/^(price|cost|each|unit price)$/, 'price'],
  [/^(place|location|bin|box|drawer|shelf|where)$/, 'place'],
  [/^(name|description|title)$/, 'name'],
  [/^(note|notes|comment|comments|remark|remarks)$/, 'note'],
  // As the tables of data sheets have it.
  [/^(gbw|gbp|gain bandwidth|unity gain bandwidth)$/, figureColumn('Gain-bandwidth product')],
  [/^(slew|sr)$/, figureColumn('Slew rate')],
  [/^(en|noise|noise density|input voltage noise)$/, figureColumn('Voltage noise')],
  [/^input current noise$/, figureColumn('Current noise')],
  [/^(output impedance|rout)$/, figureColumn('Output resistance')],
  [/^(input impedance|rin)$/, figureColumn('Input resistance')],
  [/^(open loop voltage gain|d\.?c\.? gain)$/, figureColumn('Open-loop gain')],
  [/^(offset|offset voltage|input offset voltage|vos)$/, figureColumn('Input offset')],
  [/^input bias current$/, figureColumn('Bias current')],
  [/^(beta|hfe)$/, figureColumn('Current gain')],
  [/^idss$/, figureColumn('Drain current at 0 V')],
  [/^(pinch off|vp|cut off voltage)$/, figureColumn('Pinch-off voltage')],
];

/** What stands behind a number, as it may stand over a column: “nF”, “kΩ”, “V/µs”, “%”. */
const UNIT =
  /^(?:%|dB|(?:meg|[fpnuµμmkKMG])?(?:F|H|Ω|Ω|ohms?|Hz|V|A|W|S|s)?(?:\/(?:[µμu]s|V|(?:√|rt|sqrt ?)\(?Hz\)?))?)$/;

/** What is longer is no heading that anybody could read. */
const LONGEST_HEADING = 120;

/** A heading, taken apart. */
export interface Heading {
  /** What its column says; nothing where that could not be guessed. */
  column: TableColumn | null;
  /** The unit that it gives for the whole column. */
  unit: string | null;
}

/** What a heading says of its column: “GBW (MHz)”, “tolerance %”. */
export function headingOf(heading: string): Heading {
  if (heading.length > LONGEST_HEADING) return { column: null, unit: null };
  const bracketed = /[([]([^)\]]*(?:\([^)]*\))?)[)\]]\s*$/.exec(heading)?.[1].trim();
  const plain = heading
    .toLowerCase()
    .replace(/\(.*\)|\[.*\]|[%:]/g, '')
    .replace(/[_-]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  const named = FIGURE_COLUMNS.find(
    (c) => figureNamed(c)!.toLowerCase().replaceAll('-', ' ') === plain,
  );
  const unit = bracketed ?? (/%\s*$/.test(heading) ? '%' : undefined);
  return {
    column: HEADINGS.find(([pattern]) => pattern.test(plain))?.[1] ?? named ?? null,
    unit: unit !== undefined && unit !== '' && UNIT.test(unit) ? unit : null,
  };
}
