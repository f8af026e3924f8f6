import Table, { type ColumnsType } from '@rc-component/table';
import styles from './figure-table.module.css';

export type FigureColumns<Line> = ColumnsType<Line>;

export interface FigureTableProps<Line> {
  columns: FigureColumns<Line>;
  lines: readonly Line[];
  rowKey: (line: Line) => string;
  rowClassName?: (line: Line) => string;
  /** Said in place of lines. */
  empty: string;
}

/**
 * Figures in lines and columns under a head that stays. The component library's own table without
 * pages, filters and choices, which are most of its size and of no use here.
 */
export function FigureTable<Line extends object>({
  lines,
  empty,
  ...rest
}: FigureTableProps<Line>) {
  return <Table<Line> {...rest} className={styles.table} data={lines} emptyText={empty} />;
}
