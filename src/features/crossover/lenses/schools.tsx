import { Button } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { SCHOOLS, type SchoolResult } from '@/core/crossover/schools';
import { messageOf } from '@/core/errors';
import { formatFixed } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Sheet } from '@/core/sheet/schema';
import { useSolvedSheet } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import { engine } from '@/workers/engine';
import { attempt } from '../../shell/tell';
import { LensState } from '../../sheet/lens-state';
import { useLens } from '../../sheet/use-lens';
import { takeSchool } from '../actions';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, meanInBand, OverBand, WAY_LOOKS } from './over-band';
import table from '../../sheet/readings-table.module.css';
import styles from '../lens-panel.module.css';

const wordsOf = (id: string): string => SCHOOLS.find((s) => s.id === id)?.words ?? id;

/** The same crossover with gentle slopes and with steep ones: what each buys, and what it costs. */
function Picture({ sheet, crossover }: CrossoverLensProps) {
  const mark = usePreferences((p) => p.mark);
  const { picture, problem, stale } = useLens(sheet, { lens: 'crossoverSchools' });
  const { tuned, running, failed, start, stop } = useTunedSchools(sheet);
  const results = useMemo(
    () => (picture?.results ?? []).map((r) => tuned.find((t) => t.id === r.id) ?? r),
    [picture, tuned],
  );
  const layers = useMemo(
    () =>
      results.map(({ id, sumDb }, i) => {
        const x = picture!.frequenciesHz;
        const mean = meanInBand(x, sumDb, crossover) ?? 0;
        return line(
          id,
          wordsOf(id),
          WAY_LOOKS[i],
          x,
          sumDb.map((db) => db - mean),
        );
      }),
    [results, picture, crossover],
  );
  return (
    <LensState problem={failed ?? problem ?? picture?.problem ?? null} stale={stale}>
      <div className={styles.stack}>
        {results.length > 0 && (
          <>
            <OverBand
              title="Sum on axis, about its mean, as each slope has it"
              sheet={sheet}
              axis={{ domain: [-12, 12], ticks: [-12, -9, -6, -3, 0, 3, 6, 9, 12] }}
              unit="dB"
              layers={layers}
            />
            <Compared results={results} mark={mark} />
            <div className={styles.choice}>
              {running ? (
                <Button size="small" onClick={stop}>
                  Stop tuning
                </Button>
              ) : (
                <Button size="small" onClick={start}>
                  Tune each
                </Button>
              )}
              <span className={styles.model} role="status">
                {running
                  ? `Tuning: ${tuned.length} of ${SCHOOLS.length} done.`
                  : tuned.length > 0
                    ? 'Each tuned on the true drivers, in exact values.'
                    : 'The present slope as it is, others as textbooks have them; tuned they compare fairly.'}
              </span>
            </div>
          </>
        )}
      </div>
    </LensState>
  );
}

/** What a search found for each school, as long as the sheet stays as it was. */
function useTunedSchools(open: Sheet) {
  const sheet = useSolvedSheet(open);
  const [found, setFound] = useState<{
    of: Sheet | null;
    tuned: SchoolResult[];
    running: boolean;
    failed: string | null;
  }>({ of: null, tuned: [], running: false, failed: null });
  const abort = useRef<AbortController | null>(null);
  const stop = () => {
    abort.current?.abort();
    setFound((f) => ({ ...f, running: false }));
  };
  // Another state of the sheet, or none: what was found is of no use.
  useEffect(() => () => abort.current?.abort(), [sheet]);
  const start = async () => {
    const own = new AbortController();
    abort.current?.abort();
    abort.current = own;
    setFound({ of: sheet, tuned: [], running: true, failed: null });
    try {
      await engine().run(
        'tuneSchools',
        { sheet },
        {
          signal: own.signal,
          progress: (result) => {
            if (!own.signal.aborted) setFound((f) => ({ ...f, tuned: [...f.tuned, result] }));
          },
        },
      );
      if (!own.signal.aborted) setFound((f) => ({ ...f, running: false }));
    } catch (error) {
      if (!own.signal.aborted)
        setFound((f) => ({ ...f, running: false, failed: messageOf(error) }));
    }
  };
  const own = found.of === sheet;
  return {
    tuned: own ? found.tuned : NONE,
    running: own && found.running,
    failed: own ? found.failed : null,
    start: () => void start(),
    stop,
  };
}

const NONE: SchoolResult[] = [];

function Compared({ results, mark }: { results: SchoolResult[]; mark: DecimalMark }) {
  const number = (
    key: string,
    title: string,
    print: (r: SchoolResult) => string,
  ): FigureColumns<SchoolResult>[number] => ({
    key,
    title,
    align: 'right',
    render: (_, r) => print(r),
  });
  const db = (x: number) => formatFixed(x, 1, mark);
  const columns: FigureColumns<SchoolResult> = [
    { key: 'id', title: 'Slopes', rowScope: 'row', render: (_, { id }) => wordsOf(id) },
    number('within', 'on axis', (r) => `±${db(r.withinDb)} dB`),
    number('dip', 'dip 15° up', (r) => `${db(r.dipDb)} dB`),
    number('phase', 'phase apart', (r) => `${formatFixed(r.phaseDegrees, 0, mark)}°`),
    number('watts', 'top driver, music', (r) => `${db(r.tweeterWatts)} W`),
    number('cone', 'its cone', (r) =>
      r.tweeterMillimetres === undefined ? '–' : `${formatFixed(r.tweeterMillimetres, 2, mark)} mm`,
    ),
    number('parts', 'parts', (r) => String(r.parts)),
    number('spread', 'delay spread', (r) => `${formatFixed(1000 * r.delaySpread, 2, mark)} ms`),
    {
      key: 'take',
      title: '',
      align: 'right',
      render: (_, r) => (
        <Button
          size="small"
          aria-label={`Take ${wordsOf(r.id)}`}
          onClick={() =>
            attempt(() =>
              takeSchool(
                SCHOOLS.find((s) => s.id === r.id)!,
                r.tuned,
              ),
            )
          }
        >
          Take
        </Button>
      ),
    },
  ];
  return (
    <div className={`${table.host} ${styles.below}`}>
      <FigureTable<SchoolResult> rowKey={(r) => r.id} columns={columns} lines={results} empty="" />
    </div>
  );
}

export const schools: CrossoverLens = {
  id: 'slopes',
  title: 'Slopes',
  about: 'Gentle and steep slopes side by side: flatness, off-axis, the top driver, parts, time',
  Picture,
};
