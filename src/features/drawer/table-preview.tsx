import { Button, Modal, Select } from 'antd';
import { useMemo, useState } from 'react';
import {
  FIGURE_COLUMNS,
  figureNamed,
  STOCK_COLUMNS,
  type TableColumn,
} from '@/core/library/stock-columns';
import { readStockTable, type StockRead, type StockTable } from '@/core/library/stock-table';
import { usePreferences } from '@/store/preferences';
import { StockPreview } from './stock-preview';
import styles from './drawer.module.css';

const ROWS_SHOWN = 4;
const LEFT_OUT = 'left out';
type Choice = TableColumn | typeof LEFT_OUT;
const optionOf = (value: Choice) => ({ value, label: value });
const OPTIONS = [
  optionOf(LEFT_OUT),
  ...STOCK_COLUMNS.map(optionOf),
  {
    label: 'Figures of devices',
    options: FIGURE_COLUMNS.map((value) => ({ value, label: figureNamed(value)! })),
  },
];

interface TablePreviewProps {
  table: StockTable;
  onPut: (read: StockRead) => Promise<void>;
  onClose: () => void;
}

/** A table before it goes into the drawer: what each column says is named here. */
export function TablePreview({ table, onPut, onClose }: TablePreviewProps) {
  const mark = usePreferences((p) => p.mark);
  const [columns, setColumns] = useState(table.columns);
  const [busy, setBusy] = useState(false);
  const { rows, heading, units } = table;
  const read = useMemo(
    () => readStockTable({ columns, units, rows }, mark),
    [columns, units, rows, mark],
  );
  const name = (at: number, column: TableColumn | null) =>
    setColumns(columns.map((c, i) => (i === at ? column : c === column ? null : c)));
  const counted = `${read.good.length} of ${rows.length}`;
  return (
    <Modal
      open
      width={900}
      title="What do its columns say?"
      onCancel={onClose}
      footer={
        <Button
          type="primary"
          loading={busy}
          disabled={read.good.length === 0}
          onClick={() => {
            setBusy(true);
            void onPut(read).finally(() => setBusy(false));
          }}
        >
          Put {counted} lines into the drawer
        </Button>
      }
    >
      <div className={styles.columns}>
        <table>
          <thead>
            <tr>
              {columns.map((column, i) => (
                <th key={i}>
                  <Select<Choice>
                    size="small"
                    showSearch={{ optionFilterProp: 'label' }}
                    popupMatchSelectWidth={false}
                    value={column ?? LEFT_OUT}
                    options={OPTIONS}
                    onChange={(chosen) => name(i, chosen === LEFT_OUT ? null : chosen)}
                    aria-label={`Column ${i + 1}${heading ? `, ${heading[i]}` : ''}`}
                  />
                  <small>{heading?.[i] ?? `column ${i + 1}`}</small>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, ROWS_SHOWN).map(({ line, cells }) => (
              <tr key={line}>
                {columns.map((_, i) => (
                  <td key={i}>{cells[i]}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {columns.some(figureNamed) && (
        <p className={styles.note}>
          Figures that the table does not tell of a device are as one of its kind usually has them.
        </p>
      )}
      <StockPreview read={read} />
    </Modal>
  );
}
