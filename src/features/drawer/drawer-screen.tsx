'use client';

import { Button, Input, Segmented } from 'antd';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import type { StockEntry } from '@/core/library/stock';
import { partKindOf } from '@/core/parts';
import { FIGURED_KINDS } from '@/core/parts/device-figures';
import { mainQuantity } from '@/core/parts/quantities';
import { formatQuantity } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { useCommands } from '../shell/commands';
import { AddParts } from './add-parts';
import { DrawerTable } from './drawer-table';
import { useDrawer } from './use-drawer';
import styles from './drawer.module.css';

const ShopPanel = lazy(() => import('./shop-panel').then((m) => ({ default: m.ShopPanel })));

/** What of the drawer is listed. */
const SHELVES = [
  { value: 'all', label: 'All', has: () => true },
  { value: 'resistors', label: 'Resistors', has: (e: StockEntry) => e.kind === 'resistor' },
  { value: 'capacitors', label: 'Capacitors', has: (e: StockEntry) => e.kind === 'capacitor' },
  { value: 'coils', label: 'Coils', has: (e: StockEntry) => e.kind === 'inductor' },
  {
    value: 'devices',
    label: 'Op-amps and devices',
    has: (e: StockEntry) => FIGURED_KINDS.includes(e.kind),
  },
  {
    value: 'others',
    label: 'Others',
    has: (e: StockEntry) =>
      !['resistor', 'capacitor', 'inductor', ...FIGURED_KINDS].includes(e.kind),
  },
] as const;
type ShelfName = (typeof SHELVES)[number]['value'];

/** The parts that a person has, and where more of them come from. */
export function DrawerScreen() {
  const { contents, problem } = useDrawer();
  const mark = usePreferences((p) => p.mark);
  const [shelf, setShelf] = useState<ShelfName>('all');
  const [searched, setSearched] = useState('');
  const [shopping, setShopping] = useState(false);
  useEffect(() => {
    document.title = 'Drawer · Jaunty Reed';
  }, []);
  const commands = useMemo(
    () => [
      {
        id: 'drawer.shop',
        title: 'Open the parts shop',
        group: 'Everywhere' as const,
        words: 'buy order basket',
        run: () => setShopping(true),
      },
    ],
    [],
  );
  useCommands('drawer', commands);
  const listed = useMemo(() => {
    const { has } = SHELVES.find((s) => s.value === shelf)!;
    const wanted = searched.trim().toLowerCase();
    return (contents?.entries ?? []).filter(
      (e) => has(e) && (wanted === '' || textOf(e, mark).includes(wanted)),
    );
  }, [contents, shelf, searched, mark]);
  const pieces = contents?.entries.reduce((sum, e) => sum + e.quantity, 0) ?? 0;
  return (
    <div className={styles.screen}>
      <header className={styles.header}>
        <h1>Drawer</h1>
        {contents && (
          <p>
            {contents.entries.length === 0
              ? 'Nothing lies in it yet.'
              : `${pieces.toLocaleString('en')} parts of ${contents.entries.length} kinds`}
          </p>
        )}
        <div className={styles.actions}>
          <Input.Search
            allowClear
            className={styles.search}
            placeholder="22n, film, box 3"
            aria-label="Look for parts"
            value={searched}
            onChange={(e) => setSearched(e.target.value)}
          />
          <Button onClick={() => setShopping(!shopping)} aria-expanded={shopping}>
            {shopping ? 'Close the shop' : 'Parts shop'}
          </Button>
        </div>
      </header>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          The drawer cannot be read: {problem}.
        </p>
      )}
      {contents && contents.problems.length > 0 && (
        <ul className={styles.bad} role="alert">
          {contents.problems.map(({ id, problem: why }) => (
            <li key={id}>{why}</li>
          ))}
        </ul>
      )}
      <div className={styles.body}>
        <section className={styles.list} aria-label="What lies in the drawer">
          <Segmented<ShelfName>
            value={shelf}
            options={SHELVES.map(({ value, label }) => ({ value, label }))}
            onChange={setShelf}
            aria-label="Kinds of parts"
          />
          <DrawerTable
            entries={listed}
            empty={
              contents === null
                ? 'The drawer is being opened.'
                : contents.entries.length === 0
                  ? 'Type what you have on the right, one kind of part a line, or bring a table in.'
                  : 'Nothing in the drawer is like that.'
            }
          />
        </section>
        <aside className={styles.side}>
          <AddParts />
          {shopping && (
            <Suspense>
              <ShopPanel />
            </Suspense>
          )}
        </aside>
      </div>
    </div>
  );
}

/** Everything of an entry that it may be looked for by. */
function textOf({ name, kind, value, make, place, note }: StockEntry, mark: 'point' | 'comma') {
  const found = partKindOf(kind);
  const main = mainQuantity(found);
  const printed =
    main && value !== undefined
      ? [formatQuantity(value, main.quantity, { mark }), formatQuantity(value, main.quantity)]
      : [];
  return [name, found.noun, make, place, note, ...printed].join(' ').toLowerCase();
}
