import type { TableColumnsType } from 'antd';
import { ArrowDown, ArrowUp, ListFilter } from 'lucide-react';
import type { AskKind } from '@/core/design/ask';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { WeighRow } from '@/core/weigh/weigh';
import { SHAPE_WORDS } from './ask-words';

type Value = (row: WeighRow) => number | null;

/** Rows without a figure come last, whichever way the column is sorted. */
const by = (value: Value) => (a: WeighRow, b: WeighRow, order?: 'ascend' | 'descend' | null) => {
  const [x, y] = [value(a), value(b)];
  if (x === null || y === null) {
    if (x === y) return 0;
    return (x === null) === (order !== 'descend') ? 1 : -1;
  }
  return x - y;
};

/** Columns that are looked at together, where not all have room. */
export type ColumnGroup = 'parts' | 'response' | 'practice';
export const COLUMN_GROUPS: { value: ColumnGroup; label: string }[] = [
  { value: 'parts', label: 'Parts' },
  { value: 'response', label: 'Response' },
  { value: 'practice', label: 'In practice' },
];

/** Nine in ten of the spread boards. */
const BOARDS = 'of boards with 1 % resistors and 5 % other parts, nine in ten';

const PASSES = 'within 1 dB of the exact pass band';
/** What a board must do to be counted in the yield. */
const KEEPS: Record<AskKind | 'limits', string> = {
  limits: 'to the limits, with 0.5 dB of room in the pass band and 1 dB in the stop band',
  'low-pass': PASSES,
  'high-pass': PASSES,
  'band-pass': PASSES,
  'wide-band': PASSES,
  'band-stop': PASSES,
  notch:
    'at least 20 dB deep at the asked centre, and within 1 dB where the exact one has lost less than 1 dB',
  peak: 'within 1 dB of the exact curve everywhere',
  'low-shelf': 'within 1 dB of the exact curve everywhere',
  'high-shelf': 'within 1 dB of the exact curve everywhere',
  tilt: 'within 1 dB of the exact curve everywhere',
  'all-pass': 'within 1 dB everywhere, and within 10° at the edge',
};

/** Signs of our own: an arrow where the table is sorted by, a funnel where it can be narrowed. */
const sorting = {
  sortIcon: ({ sortOrder }: { sortOrder?: 'ascend' | 'descend' | null }) =>
    sortOrder ? (
      sortOrder === 'ascend' ? (
        <ArrowUp size={12} aria-hidden />
      ) : (
        <ArrowDown size={12} aria-hidden />
      )
    ) : null,
};
const narrowing = {
  filterIcon: (on: boolean) => (
    <ListFilter size={12} aria-label="narrow" color={on ? 'var(--accent)' : 'currentColor'} />
  ),
};

/**
 * The table's columns; each figure says in its title what it is and where it is taken.
 *
 * @param group the figures to show beside shape, order and topology; all of them for null
 */
export function weighColumns(
  rows: readonly WeighRow[],
  mark: DecimalMark,
  group: ColumnGroup | null,
): TableColumnsType<WeighRow> {
  const number = (
    of: ColumnGroup,
    title: string,
    help: string,
    value: Value,
    print: (x: number) => string,
    width = 72,
  ): TableColumnsType<WeighRow> =>
    // A figure that means nothing for what is asked has no column.
    (group !== null && group !== of) || (rows.length > 0 && rows.every((r) => value(r) === null))
      ? []
      : [
          {
            ...sorting,
            key: title,
            title: <span title={help}>{title}</span>,
            align: 'right',
            width,
            sorter: by(value),
            onCell: () => ({ className: 'mono' }),
            render: (_, row) => {
              const x = value(row);
              return x === null || !Number.isFinite(x) ? '–' : print(x);
            },
          },
        ];
  const fixed = (digits: number) => (x: number) => formatFixed(x, digits, mark);
  const quantity = (kind: 'hertz' | 'seconds' | 'volts') => (x: number) =>
    formatQuantity(x, kind, { digits: 2, unit: true, mark });
  const whole = (x: number) => `${x}`;
  const kind = rows[0]?.ask.limits ? 'limits' : (rows[0]?.ask.kind ?? 'low-pass');
  const shapes = [...new Set(rows.map((r) => r.shape))];
  const orders = [...new Set(rows.map((r) => r.order))].sort((a, b) => a - b);
  // A notch or a peak has neither shape nor order: what it is stands in the sentence.
  const shaped: TableColumnsType<WeighRow> = [
    {
      ...sorting,
      ...narrowing,
      key: 'shape',
      title: 'Shape',
      width: 96,
      render: (_, r) => (r.shape ? SHAPE_WORDS[r.shape][0] : r.ask.kind),
      sorter: (a, b) => (a.shape ?? '').localeCompare(b.shape ?? ''),
      filters: shapes.flatMap((s) => (s ? [{ text: SHAPE_WORDS[s][1], value: s }] : [])),
      onFilter: (value, r) => r.shape === value,
    },
    {
      ...sorting,
      ...narrowing,
      key: 'order',
      title: 'Order',
      width: 68,
      align: 'right',
      onCell: () => ({ className: 'mono' }),
      render: (_, r) => r.order,
      sorter: (a, b) => a.order - b.order,
      filters: orders.map((n) => ({ text: `order ${n}`, value: n })),
      onFilter: (value, r) => r.order === value,
    },
  ];
  return [
    ...(shapes.some((s) => s !== null) ? shaped : []),
    {
      ...sorting,
      ...narrowing,
      key: 'built',
      title: 'Built as',
      ellipsis: true,
      render: (_, r) => <span title={r.topology}>{r.name}</span>,
      sorter: (a, b) => a.name.localeCompare(b.name),
      filters: [...new Set(rows.map((r) => r.name))].map((n) => ({ text: n, value: n })),
      onFilter: (value, r) => r.name === value,
    },
    ...number(
      'parts',
      'Op-amps',
      'Op-amps, and transconductors',
      (r) => r.counts['op-amp'] + r.counts.transconductor,
      whole,
      74,
    ),
    ...number('parts', 'R', 'Resistors', (r) => r.counts.resistor, whole, 52),
    ...number('parts', 'C', 'Capacitors', (r) => r.counts.capacitor, whole, 52),
    ...number('parts', 'L', 'Coils', (r) => r.counts.inductor, whole, 52),
    ...number('practice', 'Worst Q', 'The highest stage Q', (r) => r.worstQ, fixed(2), 68),
    ...number(
      'practice',
      'Bandwidth',
      'Least gain-bandwidth of the op-amps that keeps the pass band within 0.5 dB of the ideal (and a notch 20 dB deep)',
      (r) => r.gainBandwidthHz,
      quantity('hertz'),
      86,
    ),
    ...number(
      'response',
      'Ripple dB',
      'Highest less lowest level over the pass band, its edges included',
      (r) => r.rippleDb,
      fixed(2),
      80,
    ),
    ...number(
      'response',
      'Stops dB',
      'Least attenuation under the pass band’s highest: over the whole stop band, or from an octave beyond the edge (of a band-stop, over the middle half of its width)',
      (r) => r.attenuationDb,
      fixed(1),
      76,
    ),
    ...number(
      'response',
      'Delay ±',
      'Longest less shortest group delay over the pass band',
      (r) => r.delayVariationSeconds,
      quantity('seconds'),
      78,
    ),
    ...number(
      'response',
      'Width',
      'Between the two points half the power down, with exact parts',
      (r) => r.widthHz,
      quantity('hertz'),
      80,
    ),
    ...number(
      'practice',
      'Depth dB',
      `At the asked centre; ${BOARDS} reach it`,
      (r) => r.depthDb,
      fixed(1),
      76,
    ),
    ...number(
      'practice',
      'Height ±',
      `How far the height is off, dB; ${BOARDS} stay within`,
      (r) => r.heightErrorDb,
      fixed(2),
      74,
    ),
    ...number(
      'practice',
      'Width ±',
      `How far the width at half the height is off; ${BOARDS} stay within`,
      (r) => (r.widthError === null ? null : r.widthError * 100),
      (x) => `${formatFixed(x, 1, mark)} %`,
      74,
    ),
    ...number(
      'practice',
      'At edge ±',
      `How far the level at the edge is off, dB; ${BOARDS} stay within`,
      (r) => r.edgeErrorDb,
      fixed(2),
      80,
    ),
    ...number(
      'practice',
      'Phase ±',
      `How far the phase at the edge is off; ${BOARDS} stay within`,
      (r) => r.phaseErrorDegrees,
      (x) => `${formatFixed(x, 1, mark)}°`,
      74,
    ),
    ...number(
      'response',
      'Noise',
      'At the output, 20 Hz to 20 kHz, with the sheet’s op-amp (an ideal one adds none)',
      (r) => r.outputNoiseVolts,
      quantity('volts'),
      74,
    ),
    ...number(
      'practice',
      'dB per %',
      'What one per cent of the worst part does in the pass band',
      (r) => r.sensitivity.dbPerPercent,
      fixed(3),
      72,
    ),
    ...number(
      'practice',
      'Inner peak',
      'Highest output of any inner op-amp or transconductor over the path’s own highest, dB',
      (r) => r.innerPeakDb,
      fixed(1),
      80,
    ),
    ...number(
      'practice',
      'Yield',
      `Of boards with 1 % resistors and 5 % other parts, those that keep to the ask: ${KEEPS[kind]}`,
      (r) => r.yield * 100,
      (x) => `${formatFixed(x, 0, mark)} %`,
      62,
    ),
    ...number('parts', 'Cost', 'Parts at the prices above', (r) => r.cost, fixed(2), 64),
  ];
}
