import type { TableColumnsType } from 'antd';
import { ArrowDown, ArrowUp, ListFilter } from 'lucide-react';
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
    group !== null && group !== of
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
  const shapes = [...new Set(rows.map((r) => r.shape))];
  const orders = [...new Set(rows.map((r) => r.order))].sort((a, b) => a - b);
  return [
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
      'Least gain-bandwidth of the op-amps that keeps the pass band within 0.5 dB',
      (r) => r.gainBandwidthHz,
      quantity('hertz'),
      86,
    ),
    ...number(
      'response',
      'Ripple dB',
      'Highest less lowest level over the pass band, its edge included',
      (r) => r.rippleDb,
      fixed(2),
      80,
    ),
    ...number(
      'response',
      'Stops dB',
      'Down at the stop edge, or an octave beyond the edge',
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
      'Noise',
      'At the output, 20 Hz to 20 kHz',
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
      'Highest inner node over the output’s highest, dB',
      (r) => r.innerPeakDb,
      fixed(1),
      80,
    ),
    ...number(
      'practice',
      'Yield',
      'Boards with 1 % resistors and 5 % other parts that keep within a dB of the pass band, or to the limits',
      (r) => (r.yield === null ? null : r.yield * 100),
      (x) => `${formatFixed(x, 0, mark)} %`,
      62,
    ),
    ...number('parts', 'Cost', 'Parts at the prices above', (r) => r.cost, fixed(2), 64),
  ];
}
