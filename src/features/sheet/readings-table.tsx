'use client';

import { Popover } from 'antd';
import { lazy, memo, Suspense, useEffect, useRef, useState } from 'react';
import { Trash2 } from 'lucide-react';
import type { Evaluation, LayerId, ReadingResult } from '@/core/sheet/evaluate';
import { layerName } from '@/core/sheet/layer-name';
import type { Reading, Sheet } from '@/core/sheet/schema';
import { meets, missBy } from '@/core/sheet/verdict';
import { printMeasured, printWanted, readingName } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { removeReading } from './actions';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { setUi, useUi } from './ui-state';
import { Coming } from '../shell/coming';
import styles from './readings-table.module.css';

const WantedForm = lazy(() => import('./wanted-form').then((m) => ({ default: m.WantedForm })));

const PinForm = lazy(() => import('./pin-form').then((m) => ({ default: m.PinForm })));

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
    <section className={styles.host} aria-label="Readings" data-figures>
      <Announcer sheet={sheet} evaluation={evaluation} />
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
        content={
          <Suspense fallback={<Coming />}>
            <PinForm ask={sheet.ask} />
          </Suspense>
        }
      >
        <button type="button" className={styles.pin}>
          + pin a reading
        </button>
      </Popover>
    </section>
  );
}

/** Verdicts change while something else is looked at: said once things have come to rest. */
function Announcer({ sheet, evaluation }: { sheet: Sheet; evaluation: Evaluation | null }) {
  const mark = usePreferences((p) => p.mark);
  const said = useRef<ReadonlyMap<string, string>>(new Map());
  const [text, setText] = useState('');
  useEffect(() => {
    if (!evaluation) return;
    const timer = setTimeout(() => {
      const now = new Map(
        sheet.readings.flatMap((reading): [string, string][] => {
          const built = evaluation.readings.find((r) => r.id === reading.id)?.results.built;
          if (!built) return [];
          const name = readingName(reading, mark);
          if ('error' in built) return [[reading.id, `${name}: cannot be read`]];
          const { value } = built.measured;
          const verdict = !reading.wanted
            ? ''
            : meets(reading.wanted, value)
              ? ', met'
              : ', missed';
          return [
            [reading.id, `${name}: ${printMeasured(reading.measure, value, mark)}${verdict}`],
          ];
        }),
      );
      const changed = [...now].filter(([id, line]) => said.current.get(id) !== line);
      // What stands there when the sheet is opened is read, not announced.
      if (said.current.size > 0 && changed.length > 0)
        setText(changed.map(([, line]) => line).join('. '));
      said.current = now;
    }, 700);
    return () => clearTimeout(timer);
  }, [sheet.readings, evaluation, mark]);
  return (
    <p role="status" className="visually-hidden">
      {text}
    </p>
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
          content={
            <Suspense fallback={<Coming />}>
              <WantedForm reading={reading} />
            </Suspense>
          }
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
            <td key={id} className={styles.none}>
              <Popover trigger={['hover', 'focus', 'click']} content={result.error}>
                <button type="button" className={styles.why} aria-label={`none: ${result.error}`}>
                  none
                </button>
              </Popover>
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

/** Says which versions meet the wish, and by how much the built one misses it. */
function Verdict({
  reading: { wanted, measure },
  results,
}: {
  reading: Reading;
  results: Partial<Record<LayerId, ReadingResult>>;
}) {
  const mark = usePreferences((p) => p.mark);
  const { built, ideal } = results;
  if (!wanted || !built) return null;
  if ('error' in built)
    return (
      <span className={styles.bad}>
        ✗ cannot be read<span className="visually-hidden">: {built.error}</span>
      </span>
    );
  const miss = missBy(wanted, built.measured.value);
  if (miss === 0) return <span className={styles.good}>✓ built</span>;
  const idealMeets = ideal && 'measured' in ideal && meets(wanted, ideal.measured.value);
  const by = printMeasured(measure, Math.abs(miss), mark);
  return (
    <span className={styles.bad}>
      ✗ built {by} too {miss > 0 ? 'high' : 'low'}; ideal{' '}
      {idealMeets ? 'meets it' : 'misses it too'}
    </span>
  );
}
