import type { TableColumnType, TableColumnsType } from 'antd';
import { ArrowDown, ArrowUp, ListFilter } from 'lucide-react';
import type { AskKind } from '@/core/design/ask';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Shape } from '@/core/response/prototypes';
import { topologyOf } from '@/core/topologies';
import type { Candidate } from '@/core/weigh/candidates';
import { DEFAULT_PRICES, type Prices } from '@/core/weigh/prices';
import type { WeighRow } from '@/core/weigh/weigh';
import { SHAPE_WORDS } from './ask-words';
import { FIGURES, type ColumnGroup, type WeighFigure } from './weigh-figures';

/** What is weighed, as far as the columns depend on it. */
export interface Weighed {
  kind: AskKind;
  limits: boolean;
  shapes: (Shape | null)[];
  orders: number[];
  /** What the designs are built as. */
  names: string[];
  /** Titles of the figures that no row has. */
  without: string[];
}

const distinct = <T,>(list: readonly T[]): T[] => [...new Set(list)];

/** What is weighed, by the candidates: known before the first row, so that the columns stand still. */
export const weighedCandidates = (candidates: readonly Candidate[]): Weighed => ({
  ...asked(candidates),
  names: distinct(candidates.map((c) => topologyOf(c.topology).asWords)),
  without: [],
});

/** What was weighed, by the rows that all are there. */
export const weighedRows = (rows: readonly WeighRow[]): Weighed => ({
  ...asked(rows),
  names: distinct(rows.map((r) => r.name)),
  without: FIGURES.filter(({ value }) => rows.every((r) => value(r, DEFAULT_PRICES) === null)).map(
    (figure) => figure.title,
  ),
});

function asked(list: readonly Pick<Candidate, 'ask' | 'shape' | 'order'>[]) {
  const [first] = list;
  return {
    kind: first?.ask.kind ?? ('low-pass' as const),
    limits: first?.ask.limits !== undefined,
    shapes: distinct(list.map((c) => c.shape)),
    orders: distinct(list.map((c) => c.order)).sort((a, b) => a - b),
  };
}

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
const mono = () => ({ className: 'mono' });

export interface ColumnOptions {
  /** The figures to show beside shape, order and topology; all of them for null. */
  group: ColumnGroup | null;
  mark: DecimalMark;
  prices: Prices;
}

/** The table's columns. A figure that means nothing for what is asked has none. */
export function weighColumns(
  weighed: Weighed,
  { group, mark, prices }: ColumnOptions,
): TableColumnsType<WeighRow> {
  const { kind, shapes, orders, names, without } = weighed;
  const shown = FIGURES.filter(
    (f) =>
      (group === null || f.group === group) &&
      (!f.kinds || f.kinds.includes(kind)) &&
      !without.includes(f.title),
  );
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
      onCell: mono,
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
      filters: names.map((n) => ({ text: n, value: n })),
      onFilter: (value, r) => r.name === value,
    },
    ...shown.map((figure) =>
      figureColumn(figure, { mark, prices, kind: weighed.limits ? 'limits' : kind }),
    ),
  ];
}

function figureColumn(
  { title, help, value, print, width }: WeighFigure,
  { mark, prices, kind }: Omit<ColumnOptions, 'group'> & { kind: AskKind | 'limits' },
): TableColumnType<WeighRow> {
  const of = (row: WeighRow) => value(row, prices);
  return {
    ...sorting,
    key: title,
    title: <span title={help(kind)}>{title}</span>,
    align: 'right',
    width,
    sorter: (a, b, order) => compared(of(a), of(b), order),
    onCell: mono,
    render: (_, row) => {
      const x = of(row);
      return x === null || !Number.isFinite(x) ? '–' : print(x, mark);
    },
  };
}

/** Rows without a figure come last, whichever way the column is sorted. */
function compared(x: number | null, y: number | null, order?: 'ascend' | 'descend' | null): number {
  if (x !== null && y !== null) return x - y;
  if (x === y) return 0;
  return (x === null) === (order !== 'descend') ? 1 : -1;
}
