import type { TableColumnsType } from 'antd';
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

/** The table's columns; each figure says in its title what it is and where it is taken. */
export function weighColumns(
  rows: readonly WeighRow[],
  mark: DecimalMark,
): TableColumnsType<WeighRow> {
  const number = (
    title: string,
    help: string,
    value: Value,
    print: (x: number) => string,
    width = 72,
  ): TableColumnsType<WeighRow>[number] => ({
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
  });
  const fixed = (digits: number) => (x: number) => formatFixed(x, digits, mark);
  const quantity = (kind: 'hertz' | 'seconds' | 'volts') => (x: number) =>
    formatQuantity(x, kind, { digits: 2, unit: true, mark });
  const whole = (x: number) => `${x}`;
  const shapes = [...new Set(rows.map((r) => r.shape))];
  const orders = [...new Set(rows.map((r) => r.order))].sort((a, b) => a - b);
  return [
    {
      key: 'shape',
      title: 'Shape',
      width: 116,
      fixed: 'left',
      render: (_, r) => (r.shape ? SHAPE_WORDS[r.shape][0] : r.ask.kind),
      sorter: (a, b) => (a.shape ?? '').localeCompare(b.shape ?? ''),
      filters: shapes.flatMap((s) => (s ? [{ text: SHAPE_WORDS[s][1], value: s }] : [])),
      onFilter: (value, r) => r.shape === value,
    },
    {
      key: 'order',
      title: 'Order',
      width: 88,
      fixed: 'left',
      align: 'right',
      onCell: () => ({ className: 'mono' }),
      render: (_, r) => r.order,
      sorter: (a, b) => a.order - b.order,
      filters: orders.map((n) => ({ text: `order ${n}`, value: n })),
      onFilter: (value, r) => r.order === value,
    },
    {
      key: 'built',
      title: 'Built as',
      width: 190,
      ellipsis: true,
      render: (_, r) => <span title={r.topology}>{r.name}</span>,
      sorter: (a, b) => a.name.localeCompare(b.name),
      filters: [...new Set(rows.map((r) => r.name))].map((n) => ({ text: n, value: n })),
      onFilter: (value, r) => r.name === value,
    },
    number(
      'Op-amps',
      'Op-amps, and transconductors',
      (r) => r.counts['op-amp'] + r.counts.transconductor,
      whole,
      82,
    ),
    number('R', 'Resistors', (r) => r.counts.resistor, whole, 52),
    number('C', 'Capacitors', (r) => r.counts.capacitor, whole, 52),
    number('L', 'Coils', (r) => r.counts.inductor, whole, 52),
    number('Worst Q', 'The highest stage Q', (r) => r.worstQ, fixed(2), 82),
    number(
      'Bandwidth',
      'Least gain-bandwidth of the op-amps that keeps the pass band within 0.5 dB',
      (r) => r.gainBandwidthHz,
      quantity('hertz'),
      94,
    ),
    number(
      'Ripple dB',
      'Highest less lowest level over the pass band, its edge included',
      (r) => r.rippleDb,
      fixed(2),
      90,
    ),
    number(
      'Stops dB',
      'Down at the stop edge, or an octave beyond the edge',
      (r) => r.attenuationDb,
      fixed(1),
      86,
    ),
    number(
      'Delay ±',
      'Longest less shortest group delay over the pass band',
      (r) => r.delayVariationSeconds,
      quantity('seconds'),
      86,
    ),
    number(
      'Noise',
      'At the output, 20 Hz to 20 kHz',
      (r) => r.outputNoiseVolts,
      quantity('volts'),
      84,
    ),
    number(
      'dB per %',
      'What one per cent of the worst part does in the pass band',
      (r) => r.sensitivity.dbPerPercent,
      fixed(3),
      88,
    ),
    number(
      'Inner peak',
      'Highest inner node over the output’s highest, dB',
      (r) => r.innerPeakDb,
      fixed(1),
      92,
    ),
    number(
      'Yield',
      'Boards with 1 % resistors and 5 % other parts that keep within a dB of the pass band, or to the limits',
      (r) => (r.yield === null ? null : r.yield * 100),
      (x) => `${formatFixed(x, 0, mark)} %`,
      74,
    ),
    number('Cost', 'Parts at the prices above', (r) => r.cost, fixed(2), 78),
  ];
}
