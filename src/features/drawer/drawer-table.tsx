import { Button, InputNumber } from 'antd';
import { Trash2 } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import type { StockEntry } from '@/core/library/stock';
import { partKindOf } from '@/core/parts';
import { FIGURED_KINDS, figureWords } from '@/core/parts/device-figures';
import { mainQuantity } from '@/core/parts/quantities';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { changeInDrawer, putBack, removeFromDrawer } from '@/store/drawer';
import { usePreferences } from '@/store/preferences';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import { attemptStored, tell } from '../shell/tell';
import styles from './drawer.module.css';

const DeviceWindow = lazy(() =>
  import('./device-window').then((m) => ({ default: m.DeviceWindow })),
);

interface Line {
  entry: StockEntry;
  mark: DecimalMark;
  onFigures: (entry: StockEntry) => void;
}

const number = (x: number | undefined, mark: DecimalMark, unit = '') =>
  x === undefined ? '' : `${formatQuantity(x, 'ratio', { digits: 4, mark })}${unit}`;

/** “100 V”, “0.25 W”. */
const ratingOf = ({ ratedVolts, ratedWatts }: StockEntry, mark: DecimalMark) =>
  [number(ratedVolts, mark, '\u00a0V'), number(ratedWatts, mark, '\u00a0W')]
    .filter((x) => x !== '')
    .join(', ');

const COLUMNS: FigureColumns<Line> = [
  {
    key: 'part',
    title: 'Part',
    rowScope: 'row',
    render: (_, { entry }) => <span className={styles.part}>{partKindOf(entry.kind).noun}</span>,
  },
  {
    key: 'value',
    title: 'value',
    align: 'right',
    render: (_, { entry: { kind, value, name }, mark }) => {
      const main = mainQuantity(partKindOf(kind));
      return main && value !== undefined
        ? formatQuantity(value, main.quantity, { unit: true, mark })
        : name;
    },
  },
  {
    key: 'tolerance',
    title: 'within',
    align: 'right',
    render: (_, { entry: { tolerance }, mark }) =>
      number(tolerance === undefined ? undefined : tolerance * 100, mark, '\u00a0%'),
  },
  {
    key: 'make',
    title: 'made of',
    className: styles.words,
    render: (_, { entry, mark, onFigures }) => {
      const { kind, make, name, ppmPerKelvin } = entry;
      if (!FIGURED_KINDS.includes(kind))
        return [make === name ? '' : make, number(ppmPerKelvin, mark, '\u00a0ppm/K')]
          .filter(Boolean)
          .join(', ');
      const words = figureWords(partKindOf(kind), entry.model, mark);
      return (
        <button
          type="button"
          className={styles.figures}
          aria-label={`Figures of ${name}`}
          onClick={() => onFigures(entry)}
        >
          {words === '' ? 'figures' : words}
        </button>
      );
    },
  },
  {
    key: 'rating',
    title: 'stands',
    align: 'right',
    render: (_, { entry, mark }) => ratingOf(entry, mark),
  },
  {
    key: 'price',
    title: 'each',
    align: 'right',
    render: (_, { entry: { price }, mark }) =>
      price === undefined ? '' : formatFixed(price, 2, mark),
  },
  {
    key: 'place',
    title: 'where',
    className: styles.words,
    render: (_, { entry }) => entry.place ?? '',
  },
  {
    key: 'quantity',
    title: 'pieces',
    align: 'right',
    render: (_, { entry }) => <Quantity entry={entry} />,
  },
  {
    key: 'remove',
    title: <span className="visually-hidden">Take out</span>,
    width: 30,
    render: (_, { entry }) => (
      <button
        type="button"
        className={styles.remove}
        aria-label={`Take ${entry.name} out of the drawer`}
        onClick={() => void takeOut(entry)}
      >
        <Trash2 size={13} aria-hidden />
      </button>
    ),
  },
];

/** The parts of the drawer, a line for each kind. */
export function DrawerTable({ entries, empty }: { entries: readonly StockEntry[]; empty: string }) {
  const mark = usePreferences((p) => p.mark);
  const [looked, setLooked] = useState<StockEntry | null>(null);
  return (
    <div className={styles.table}>
      <FigureTable<Line>
        columns={COLUMNS}
        lines={entries.map((entry) => ({ entry, mark, onFigures: setLooked }))}
        rowKey={({ entry }) => entry.id}
        rowClassName={({ entry }) => (entry.quantity === 0 ? styles.none : '')}
        empty={empty}
      />
      {looked && (
        <Suspense>
          <DeviceWindow entry={looked} onClose={() => setLooked(null)} />
        </Suspense>
      )}
    </div>
  );
}

function Quantity({ entry: { id, name, quantity } }: { entry: StockEntry }) {
  return (
    <InputNumber<number>
      key={quantity}
      size="small"
      min={0}
      max={1_000_000}
      precision={0}
      defaultValue={quantity}
      aria-label={`Pieces of ${name}`}
      className={styles.quantity}
      onBlur={(e) => {
        const typed = Number(e.target.value);
        if (Number.isInteger(typed) && typed >= 0 && typed !== quantity)
          void attemptStored('The number was not stored', () =>
            changeInDrawer(id, { quantity: typed }),
          );
      }}
      onPressEnter={(e) => (e.target as HTMLInputElement).blur()}
      onStep={(value) =>
        void attemptStored('The number was not stored', () =>
          changeInDrawer(id, { quantity: value }),
        )
      }
    />
  );
}

async function takeOut(entry: StockEntry): Promise<void> {
  await attemptStored('Nothing was taken out', async () => {
    await removeFromDrawer(entry.id);
    tell(
      <>
        {entry.name} is out of the drawer.{' '}
        <Button
          size="small"
          onClick={() => void attemptStored('It was not brought back', () => putBack(entry))}
        >
          Put it back
        </Button>
      </>,
      { seconds: 8 },
    );
  });
}
