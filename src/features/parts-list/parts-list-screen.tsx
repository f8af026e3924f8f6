'use client';

import { Button, InputNumber } from 'antd';
import { useEffect, useState } from 'react';
import { partsCsv } from '@/core/formats/parts-csv';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import { partsOnHand, type LineOnHand } from '@/core/sheet/parts-on-hand';
import type { Sheet } from '@/core/sheet/schema';
import { openSheet } from '@/store/session-storage';
import { useSheet } from '@/store/sheet-session';
import { usePreferences } from '@/store/preferences';
import { download, fileName } from '@/ui/download';
import { useDrawer } from '../drawer/use-drawer';
import { Unopened } from '../sheet/unopened';
import { sheetAddress } from '../shell/sheet-address';
import { useGo } from '../shell/leave-guard';
import { Boards } from './boards';
import { LackingButton } from './lacking-button';
import { PartsTable } from './parts-table';
import { usePartsList } from './use-parts-list';
import styles from './parts-list.module.css';

/** What a sheet is built of: what of it is there, what is lacking, what it costs. */
export function PartsListScreen({ id }: { id: string }) {
  const sheet = useSheet();
  useEffect(() => void openSheet(id), [id]);
  return sheet?.id === id ? <Open sheet={sheet} /> : <Unopened id={id} />;
}

function Open({ sheet }: { sheet: Sheet }) {
  const { list, problem } = usePartsList(sheet);
  const { contents } = useDrawer();
  const [boards, setBoards] = useState(1);
  const mark = usePreferences((p) => p.mark);
  const volts = (x: number) => formatQuantity(x, 'volts', { unit: true, mark, digits: 3 });
  const go = useGo();
  useEffect(() => {
    document.title = `Parts for ${sheet.title} · Jaunty Reed`;
  }, [sheet.title]);
  const lines = list ? partsOnHand(list.lines, contents?.entries ?? [], boards) : [];
  return (
    <div className={styles.screen}>
      <header className={styles.header}>
        <div>
          <h1>Parts for {sheet.title}</h1>
          <p className={styles.forBoards}>
            <label>
              For{' '}
              <InputNumber<number>
                size="small"
                min={1}
                max={1000}
                precision={0}
                value={boards}
                onChange={(value) => setBoards(value ?? 1)}
                aria-label="Boards"
              />
            </label>{' '}
            {sheet.crossover
              ? `${boards === 1 ? 'channel' : 'channels'}, each with a board of its own; levels at ${volts(sheet.crossover.loudVolts)} r.m.s., 20 Hz to 20 kHz, heat of music`
              : `${boards === 1 ? 'board' : 'boards'}; levels at ${volts(sheet.source.volts)} r.m.s. of the source, 10 Hz to 40 kHz`}
          </p>
          {sheet.crossover && <Drivers sheet={sheet} channels={boards} />}
        </div>
        <div className={styles.actions}>
          <Button onClick={() => go(sheetAddress(sheet.id))}>Back to the sheet</Button>
          <Button
            disabled={lines.length === 0}
            onClick={() =>
              download(fileName(`${sheet.title} parts`, 'csv'), partsCsv(lines), 'text/csv')
            }
          >
            Save as CSV
          </Button>
          {!sheet.crossover && !sheet.bank && (
            <Button onClick={() => go(sheetAddress(sheet.id, 'board'))}>Stripboard</Button>
          )}
          <Button onClick={() => window.print()}>Print</Button>
          <LackingButton lines={lines} />
        </div>
      </header>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      {list?.problems.map((why) => (
        <p key={why} role="alert" className={styles.bad}>
          What parts have to stand is not told: {why}
        </p>
      ))}
      {list && <PartsTable lines={lines} />}
      {list && <Totals lines={lines} />}
      <Boards sheet={sheet} lines={lines} boards={boards} />
      <p className={styles.care}>
        Take ratings well above what is told here: twice the voltage, twice the power. A resistor
        that takes more than a quarter of its rating gets too hot to touch. Check every part for
        where you live and what it is used for; where mains is near, leave it to a qualified person.
      </p>
    </div>
  );
}

/** The drivers that each channel ends in: they are bought apart. */
function Drivers({ sheet, channels }: { sheet: Sheet; channels: number }) {
  const names = sheet.ways.flatMap(({ to }) => (to.is === 'driver' ? [to.name] : []));
  return (
    <p className={styles.forBoards}>
      Beside the parts: {names.map((name) => `${channels} × ${name}`).join('; ')}.
    </p>
  );
}

function Totals({ lines }: { lines: readonly LineOnHand[] }) {
  const mark = usePreferences((p) => p.mark);
  const sum = (of: (l: LineOnHand) => number) => lines.reduce((s, l) => s + of(l), 0);
  const parts = sum((l) => l.needed);
  const lacking = sum((l) => l.lacking);
  return (
    <p className={styles.totals}>
      {parts} {parts === 1 ? 'part' : 'parts'} of {lines.length} kinds, together{' '}
      <b>
        {formatFixed(
          sum((l) => l.needed * (l.priceEach ?? 0)),
          2,
          mark,
        )}
      </b>
      ;{' '}
      {lacking === 0
        ? 'all of them lie in the drawer.'
        : `${lacking} are lacking, for ${formatFixed(
            sum((l) => l.lacking * (l.priceEach ?? 0)),
            2,
            mark,
          )}.`}
    </p>
  );
}
