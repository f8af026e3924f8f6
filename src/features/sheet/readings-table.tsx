'use client';

import { useShallow } from 'zustand/react/shallow';
import { lazy, memo, useEffect, useMemo, useRef, useState } from 'react';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { LayerId } from '@/core/sheet/layers';
import { layerName } from '@/core/sheet/layer-name';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Reading, Sheet } from '@/core/sheet/schema';
import { meets } from '@/core/sheet/verdict';
import { printMeasured, readingName } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { useSession } from '@/store/sheet-session';
import { FigureTable } from '@/ui/controls/figure-table';
import { FormPopover } from '../shell/form-popover';
import { useEvaluations, type EvaluationState } from './evaluations';
import { readingColumns } from './reading-columns';
import type { ReadingLine } from './reading-line';
import { setUi, useUi } from './ui-state';
import { useSteady } from './use-alike';
import styles from './readings-table.module.css';

const PinForm = lazy(() => import('./pin-form').then((m) => ({ default: m.PinForm })));

type Props = Pick<Sheet, 'readings' | 'keeps' | 'ask'>;

/** The pinned numbers: wanted, ideal, built, keeps, and whether they agree. */
export const ReadingsTable = memo(function ReadingsTable({ readings, keeps, ask }: Props) {
  const pinning = useUi((s) => s.pinning);
  const mark = usePreferences((p) => p.mark);
  const versions = useSteady(
    ['ideal' as const, 'built' as const, ...keepsShown(keeps)].map((id): [LayerId, string] => [
      id,
      layerName(id, { keeps }),
    ]),
  );
  const columns = useMemo(() => readingColumns(versions), [versions]);
  const stages = useSession(useShallow((s) => s.content?.ways[0].stages.map((o) => o.id) ?? []));
  const lines = readings.map((reading): ReadingLine => ({
    reading,
    mark,
    name: readingName(reading, mark, stages),
  }));
  return (
    <section className={styles.host} aria-label="Readings" data-figures>
      <Announcer readings={readings} stages={stages} />
      <FigureTable<ReadingLine>
        rowKey={({ reading }) => reading.id}
        columns={columns}
        lines={lines}
        empty="Nothing is pinned."
      />
      <FormPopover
        open={pinning}
        onOpenChange={(open) => setUi({ pinning: open })}
        content={<PinForm ask={ask} />}
      >
        <button type="button" className={styles.pin}>
          + pin a reading
        </button>
      </FormPopover>
    </section>
  );
});

const keepsShown = (keeps: Sheet['keeps']): LayerId[] =>
  keeps.filter((k) => k.shown).map((k) => `keep:${k.id}` as const);

/** Things have come to rest when nothing changed for so long, milliseconds. */
const REST = 700;

/** Verdicts change while something else is looked at: said once things have come to rest. */
function Announcer({ readings, stages }: Pick<Props, 'readings'> & { stages: readonly string[] }) {
  const mark = usePreferences((p) => p.mark);
  const said = useRef<ReadonlyMap<string, string>>(new Map());
  const [text, setText] = useState('');
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const say = ({ evaluation }: EvaluationState) => {
      clearTimeout(timer);
      if (!evaluation) return;
      timer = setTimeout(() => {
        const now = new Map(
          readings.flatMap((r) => lineOf(r, readingName(r, mark, stages), evaluation, mark)),
        );
        const changed = [...now].filter(([id, line]) => said.current.get(id) !== line);
        // What stands there when the sheet is opened is read, not announced.
        if (said.current.size > 0 && changed.length > 0)
          setText(changed.map(([, line]) => line).join('. '));
        said.current = now;
      }, REST);
    };
    say(useEvaluations.getState());
    const leave = useEvaluations.subscribe(say);
    return () => {
      clearTimeout(timer);
      leave();
    };
  }, [readings, mark, stages]);
  return (
    <p role="status" className="visually-hidden">
      {text}
    </p>
  );
}

/** What is said of a reading, with its id; nothing where there is nothing to read. */
function lineOf(
  reading: Reading,
  name: string,
  evaluation: Evaluation,
  mark: DecimalMark,
): [id: string, line: string][] {
  const built = evaluation.readings.find((r) => r.id === reading.id)?.results.built;
  if (!built) return [];
  if ('error' in built) return [[reading.id, `${name}: cannot be read`]];
  const { value } = built.measured;
  const verdict = !reading.wanted ? '' : meets(reading.wanted, value) ? ', met' : ', missed';
  return [[reading.id, `${name}: ${printMeasured(reading.measure, value, mark)}${verdict}`]];
}
