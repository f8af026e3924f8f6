'use client';

import { Button } from 'antd';
import { lazy, useEffect, useState } from 'react';
import type { DriverEntry } from '@/core/library/driver';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { putDriver } from '@/store/drivers';
import { newId } from '@/store/ids';
import { usePreferences } from '@/store/preferences';
import { Prepared } from '@/ui/controls/prepared';
import { sheetAddress } from '../shell/sheet-address';
import { useGo } from '../shell/leave-guard';
import { attemptStored } from '../shell/tell';
import { DriverSheet } from './driver-sheet';
import { NEW_MODEL } from './figures';
import { useDrivers } from './use-drivers';
import styles from './drivers.module.css';

const BeginCrossover = lazy(() =>
  import('../crossover/begin/begin-crossover').then((m) => ({ default: m.BeginCrossover })),
);

/** The loudspeaker units of this browser, and what is known of the chosen one. */
export function DriversScreen() {
  const { contents, problem } = useDrivers();
  const go = useGo();
  const [dividing, setDividing] = useState(false);
  const mark = usePreferences((p) => p.mark);
  const [chosenId, choose] = useState<string | null>(null);
  useEffect(() => {
    document.title = 'Drivers · Jaunty Reed';
  }, []);
  const entries = contents?.entries ?? [];
  const chosen = entries.find((e) => e.id === chosenId) ?? entries[0];
  const begin = () =>
    attemptStored('No driver was stored', async () => {
      const id = newId();
      await putDriver({
        format: 'jaunty-reed/driver',
        version: 1,
        id,
        name: 'New driver',
        model: NEW_MODEL,
        note: '',
      });
      choose(id);
    });
  return (
    <div className={styles.screen}>
      <header className={styles.header}>
        <h1>Drivers</h1>
        {contents && (
          <p>{entries.length === 1 ? 'one unit' : `${entries.length} units`} in this browser</p>
        )}
        <span className={styles.begin}>
          <Button onClick={() => setDividing(true)}>Begin a crossover</Button>
          <Button type="primary" onClick={() => void begin()}>
            New driver
          </Button>
        </span>
      </header>
      {(problem !== null || (contents?.problems.length ?? 0) > 0) && (
        <ul role="alert" className={styles.bad}>
          {problem !== null && <li>The drivers cannot be read: {problem}.</li>}
          {contents?.problems.map(({ id, problem: why }) => (
            <li key={id}>{why}</li>
          ))}
        </ul>
      )}
      <div className={styles.body}>
        <ul className={styles.list} aria-label="Units">
          {entries.map((entry) => (
            <li key={entry.id}>
              <button
                type="button"
                className={
                  entry.id === chosen?.id ? `${styles.entry} ${styles.chosen}` : styles.entry
                }
                aria-pressed={entry.id === chosen?.id}
                onClick={() => choose(entry.id)}
              >
                <b>{entry.name}</b>
                <span>{factsOf(entry, mark)}</span>
              </button>
            </li>
          ))}
          {contents && entries.length === 0 && <li className={styles.quiet}>No unit yet.</li>}
        </ul>
        {chosen && <DriverSheet key={chosen.id} entry={chosen} onCopied={choose} />}
      </div>
      <Prepared open={dividing} after={200}>
        <BeginCrossover
          open={dividing}
          onClose={() => setDividing(false)}
          onMade={({ id }) => go(sheetAddress(id))}
        />
      </Prepared>
    </div>
  );
}

/** A unit in a few words. */
function factsOf({ model }: DriverEntry, mark: DecimalMark): string {
  const { fsHz, reOhms, mounting, measured } = model;
  return [
    fsHz === undefined ? '' : formatQuantity(fsHz, 'hertz', { unit: true, mark, digits: 3 }),
    reOhms === undefined ? '' : formatQuantity(reOhms, 'ohms', { unit: true, mark, digits: 2 }),
    mounting && mounting.kind !== 'open'
      ? `${mounting.kind} ${formatFixed(mounting.litres, 0, mark)} l`
      : '',
    measured?.level ? 'level measured' : '',
    measured?.impedance ? 'impedance measured' : '',
  ]
    .filter((word) => word !== '')
    .join(' · ');
}
