'use client';

import { Popover } from 'antd';
import { lazy, memo, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { LayerId } from '@/core/sheet/layers';
import { layerName } from '@/core/sheet/layer-name';
import type { Sheet } from '@/core/sheet/schema';
import { meets } from '@/core/sheet/verdict';
import { printMeasured, readingName } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { FigureTable } from '@/ui/controls/figure-table';
import { Coming } from '../shell/coming';
import { readingColumns, type ReadingLine } from './reading-columns';
import { setUi, useUi } from './ui-state';
import styles from './readings-table.module.css';

const PinForm = lazy(() => import('./pin-form').then((m) => ({ default: m.PinForm })));

interface Props extends Pick<Sheet, 'readings' | 'keeps' | 'ask'> {
  evaluation: Evaluation | null;
}

/** The pinned numbers: wanted, ideal, built, keeps, and whether they agree. */
export const ReadingsTable = memo(function ReadingsTable(props: Props) {
  const { readings, keeps, ask, evaluation } = props;
  const pinning = useUi((s) => s.pinning);
  const mark = usePreferences((p) => p.mark);
  // As a text, so that the columns stay the same until what they name changes.
  const versions = JSON.stringify(
    ['ideal' as const, 'built' as const, ...keepsShown(keeps)].map((id) => [
      id,
      layerName(id, { keeps }),
    ]),
  );
  const columns = useMemo(
    () => readingColumns(JSON.parse(versions) as [LayerId, string][]),
    [versions],
  );
  const lines = readings.map((reading): ReadingLine => ({
    reading,
    mark,
    results: evaluation?.readings.find((r) => r.id === reading.id)?.results ?? {},
  }));
  return (
    <section className={styles.host} aria-label="Readings" data-figures>
      <Announcer readings={readings} evaluation={evaluation} />
      <FigureTable<ReadingLine>
        rowKey={({ reading }) => reading.id}
        columns={columns}
        lines={lines}
        empty="Nothing is pinned."
      />
      <Popover
        trigger="click"
        placement="topLeft"
        open={pinning}
        onOpenChange={(open) => setUi({ pinning: open })}
        destroyOnHidden
        content={
          <Suspense fallback={<Coming />}>
            <PinForm ask={ask} />
          </Suspense>
        }
      >
        <button type="button" className={styles.pin}>
          + pin a reading
        </button>
      </Popover>
    </section>
  );
});

const keepsShown = (keeps: Sheet['keeps']): LayerId[] =>
  keeps.filter((k) => k.shown).map((k) => `keep:${k.id}` as const);

/** Verdicts change while something else is looked at: said once things have come to rest. */
function Announcer({ readings, evaluation }: Pick<Props, 'readings' | 'evaluation'>) {
  const mark = usePreferences((p) => p.mark);
  const said = useRef<ReadonlyMap<string, string>>(new Map());
  const [text, setText] = useState('');
  useEffect(() => {
    if (!evaluation) return;
    const timer = setTimeout(() => {
      const now = new Map(
        readings.flatMap((reading): [string, string][] => {
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
  }, [readings, evaluation, mark]);
  return (
    <p role="status" className="visually-hidden">
      {text}
    </p>
  );
}
