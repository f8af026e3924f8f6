import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { LineOnHand } from '@/core/sheet/parts-on-hand';
import { usePreferences } from '@/store/preferences';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import styles from './parts-list.module.css';

interface Row extends LineOnHand {
  mark: DecimalMark;
}

const COLUMNS: FigureColumns<Row> = [
  {
    key: 'part',
    title: 'Part',
    rowScope: 'row',
    render: (_, { line }) => (
      <span className={styles.part}>
        {partKindOf(line.kind).noun}
        {line.build !== undefined && <span className={styles.build}> {line.build}</span>}
      </span>
    ),
  },
  {
    key: 'value',
    title: 'value',
    align: 'right',
    render: (_, { line: { kind, value, device }, mark }) => {
      const main = mainQuantity(partKindOf(kind));
      if (device !== undefined) return <span className={styles.words}>{device}</span>;
      return main && value !== undefined
        ? formatQuantity(value, main.quantity, { digits: 4, unit: true, mark })
        : '';
    },
  },
  {
    key: 'names',
    title: 'on the drawing',
    className: styles.words,
    render: (_, { line }) => line.names.join(', '),
  },
  {
    key: 'stands',
    title: 'has to stand',
    align: 'right',
    render: (_, { line, mark }) => standsOf(line, mark),
  },
  { key: 'needed', title: 'needed', align: 'right', render: (_, { needed }) => needed },
  { key: 'hand', title: 'in the drawer', align: 'right', render: (_, { onHand }) => onHand },
  {
    key: 'lacking',
    title: 'lacking',
    align: 'right',
    render: (_, { lacking }) => (lacking === 0 ? '–' : <b className={styles.lacking}>{lacking}</b>),
  },
  {
    key: 'each',
    title: 'each',
    align: 'right',
    render: (_, { priceEach, mark }) => (priceEach === null ? '' : formatFixed(priceEach, 2, mark)),
  },
  {
    key: 'cost',
    title: 'together',
    align: 'right',
    render: (_, { needed, priceEach, mark }) =>
      priceEach === null ? '' : formatFixed(needed * priceEach, 2, mark),
  },
];

/** The list itself, a line for each kind and value. */
export function PartsTable({ lines }: { lines: readonly LineOnHand[] }) {
  const mark = usePreferences((p) => p.mark);
  return (
    <section className={styles.table} aria-label="Parts list">
      <FigureTable<Row>
        columns={COLUMNS}
        lines={lines.map((line) => ({ ...line, mark }))}
        rowKey={({ line: { kind, value, device, build } }) =>
          `${kind} ${value ?? ''} ${device ?? ''} ${build ?? ''}`
        }
        empty="The sheet has no parts that could be bought."
      />
    </section>
  );
}

/** Of a resistor the power, of a capacitor the voltage; nothing where it is next to none. */
function standsOf({ kind, peakVolts, watts }: LineOnHand['line'], mark: DecimalMark): string {
  if (kind === 'resistor' && watts !== undefined) {
    if (watts < 1e-3) return `under ${formatQuantity(1, 'ratio', { mark })}\u00a0mW`;
    return watts < 1
      ? `${formatQuantity(watts * 1000, 'ratio', { digits: 2, mark })}\u00a0mW`
      : `${formatQuantity(watts, 'ratio', { digits: 2, mark })}\u00a0W`;
  }
  return peakVolts === undefined
    ? ''
    : `${formatQuantity(Math.max(0.1, peakVolts), 'ratio', { digits: 2, mark })}\u00a0V`;
}
