'use client';

import { Popover } from 'antd';
import { memo, useState } from 'react';
import { Trash2 } from 'lucide-react';
import type { Evaluation, LayerId, ReadingResult } from '@/core/sheet/evaluate';
import { layerName } from '@/core/formats/csv';
import type { Reading, Sheet } from '@/core/sheet/schema';
import { meets } from '@/core/sheet/verdict';
import { printMeasured, printWanted, readingName } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { removeReading } from './actions';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { PinForm } from './pin-form';
import { setUi, useUi } from './ui-state';
import { WantedForm } from './wanted-form';
import styles from './readings-table.module.css';

/** The pinned numbers: wanted, ideal, built, keeps, and whether they agree. */
export function ReadingsTable({
  sheet,
  evaluation,
}: {
  sheet: Sheet;
  evaluation: Evaluation | null;
}) {
  const pinning = useUi((s) => s.pinning);
  const keeps: LayerId[] = sheet.keeps.filter((k) => k.shown).map((k) => `keep:${k.id}` as const);
  const columns: LayerId[] = ['ideal', 'built', ...keeps];
  return (
    <section className={styles.host} aria-label="Readings">
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Reading</th>
            <th scope="col">wanted</th>
            {columns.map((id) => (
              <th key={id} scope="col">
                {layerName(id, sheet)}
              </th>
            ))}
            <th scope="col">verdict</th>
            <th scope="col">
              <span className="visually-hidden">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sheet.readings.map((reading) => (
            <Row
              key={reading.id}
              reading={reading}
              columns={columns}
              results={evaluation?.readings.find((r) => r.id === reading.id)?.results ?? {}}
            />
          ))}
        </tbody>
      </table>
      <Popover
        trigger="click"
        placement="topLeft"
        open={pinning}
        onOpenChange={(open) => setUi({ pinning: open })}
        destroyOnHidden
        content={<PinForm ask={sheet.ask} />}
      >
        <button type="button" className={styles.pin}>
          + pin a reading
        </button>
      </Popover>
    </section>
  );
}

interface RowProps {
  reading: Reading;
  columns: readonly LayerId[];
  results: Partial<Record<LayerId, ReadingResult>>;
}

const Row = memo(function Row({ reading, columns, results }: RowProps) {
  const [asking, setAsking] = useState(false);
  const mark = usePreferences((p) => p.mark);
  const { measure, wanted } = reading;
  const name = readingName(reading, mark);
  const built = results.built && 'measured' in results.built ? results.built.measured : undefined;
  const show = () => built && setUi({ cursorHz: built.atHz });
  return (
    <tr>
      <th scope="row">
        <button type="button" className={styles.name} title="Put the cursor there" onClick={show}>
          {name}
        </button>
      </th>
      <td>
        <OnDemandPopover
          open={asking}
          onOpenChange={setAsking}
          content={<WantedForm reading={reading} />}
        >
          <button
            type="button"
            className={styles.wanted}
            aria-label={`${name}, wanted: ${wanted ? printWanted(measure, wanted, mark) : 'nothing yet'}`}
            onClick={() => setAsking(true)}
          >
            {wanted ? printWanted(measure, wanted, mark) : '–'}
          </button>
        </OnDemandPopover>
      </td>
      {columns.map((id) => {
        const result = results[id];
        if (result && 'error' in result) {
          return (
            <td key={id} title={result.error} className={styles.none}>
              none<span className="visually-hidden">: {result.error}</span>
            </td>
          );
        }
        return (
          <td key={id}>{result ? printMeasured(measure, result.measured.value, mark) : ''}</td>
        );
      })}
      <td className={styles.verdict}>
        <Verdict reading={reading} results={results} />
      </td>
      <td className={styles.remove}>
        <button
          type="button"
          aria-label={`Remove reading ${name}`}
          onClick={() => removeReading(reading.id)}
        >
          <Trash2 size={13} aria-hidden />
        </button>
      </td>
    </tr>
  );
}, sameRow);

/** Equal when the row would print the same. */
function sameRow(a: RowProps, b: RowProps): boolean {
  return (
    a.reading === b.reading &&
    a.columns.join() === b.columns.join() &&
    a.columns.every((id) => JSON.stringify(a.results[id]) === JSON.stringify(b.results[id]))
  );
}

/** Says which version meets the wish; where the ideal does not either, the ask itself is at fault. */
function Verdict({
  reading: { wanted },
  results,
}: {
  reading: Reading;
  results: Partial<Record<LayerId, ReadingResult>>;
}) {
  const built = results.built;
  if (!wanted || !built) return null;
  if ('error' in built) return <span className={styles.bad}>✗ cannot be read</span>;
  if (meets(wanted, built.measured.value)) return <span className={styles.good}>✓ built</span>;
  const ideal = results.ideal;
  const idealMeets = ideal && 'measured' in ideal && meets(wanted, ideal.measured.value);
  return (
    <span className={styles.bad}>{idealMeets ? '✗ built, ideal would' : '✗ not even ideal'}</span>
  );
}
