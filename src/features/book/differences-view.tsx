import { useMemo } from 'react';
import type { Change } from '@/core/differences/change';
import type { FigureBetween } from '@/core/differences/figures';
import type { Differences } from '@/core/jobs/differences';
import type { Sheet } from '@/core/sheet/schema';
import { differenceAxis, levelAxis, valueAt } from '@/ui/chart/axis';
import { KeyedChart } from '@/ui/chart/keyed-chart';
import type { LayerLook, LineLayer } from '@/ui/chart/layers';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import styles from './book.module.css';

interface DifferencesViewProps {
  differences: Differences;
  view: Sheet['view'];
  /** What the states are called: the first, the second, and the one that is laid over. */
  names: readonly string[];
  /** Whether to say what changed: not where it is said beside it. */
  words?: boolean;
}

const LOOKS: readonly LayerLook[] = ['keep', 'built', 'ideal'];

/** Two states beside each other: curves over one another, what changed, and the readings of both. */
export function DifferencesView({ differences, view, names, words = true }: DifferencesViewProps) {
  const { changes, figures, curves, problems } = differences;
  const layers = useMemo<LineLayer[]>(
    () =>
      curves.flatMap((curve, i): LineLayer[] =>
        curve
          ? [
              {
                kind: 'line',
                id: `state-${i}`,
                name: names[i],
                look: LOOKS[i],
                x: curve.frequenciesHz,
                y: curve.levelDb,
              },
            ]
          : [],
      ),
    [curves, names],
  );
  const axis = useMemo(() => levelAxis(layers.map((l) => l.y)), [layers]);
  const less = useMemo(() => lessLayer(differences, names), [differences, names]);
  return (
    <div className={styles.differences}>
      {problems.map((p) => (
        <p key={p} role="alert" className={styles.problem}>
          {p}
        </p>
      ))}
      {layers.length > 0 && (
        <div className={styles.curves}>
          <KeyedChart
            title={`Level over frequency: ${names.join(', ')}`}
            fromHz={view.fromHz}
            toHz={view.toHz}
            axis={axis}
            layers={layers}
            size="large"
          />
          {less && (
            <KeyedChart
              title={`${names[1]} less ${names[0]}`}
              fromHz={view.fromHz}
              toHz={view.toHz}
              axis={differenceAxis([less.y])}
              unit=""
              layers={[less]}
              size="small"
            />
          )}
        </div>
      )}
      {words && <ChangesTable changes={changes} />}
      {figures.length > 0 && <FiguresTable figures={figures} names={names} />}
    </div>
  );
}

/** The second curve less the first, where both are there. */
function lessLayer({ curves }: Differences, names: readonly string[]): LineLayer | null {
  const [before, after] = curves;
  if (!before || !after) return null;
  const x = after.frequenciesHz;
  const y = Float64Array.from(
    after.levelDb,
    (db, k) => db - valueAt(before.frequenciesHz, before.levelDb, x[k]),
  );
  return {
    kind: 'line',
    id: 'less',
    name: `${names[1]} less ${names[0]}, dB`,
    look: 'built',
    x,
    y,
  };
}

/** What changed, a line each. */
export function ChangesTable({ changes }: { changes: readonly Change[] }) {
  const lines = useMemo(
    () => changes.map((change, i) => ({ ...change, id: String(i) })),
    [changes],
  );
  return (
    <section aria-label="What changed">
      <FigureTable<Change & { id: string }>
        rowKey={(line) => line.id}
        columns={CHANGE_COLUMNS}
        lines={lines}
        empty="Nothing is different."
      />
    </section>
  );
}

const CHANGE_COLUMNS: FigureColumns<Change & { id: string }> = [
  { key: 'what', title: 'What', rowScope: 'row', render: (_, { what }) => what },
  { key: 'before', title: 'was', align: 'right', render: (_, { before }) => before ?? '–' },
  { key: 'after', title: 'is', align: 'right', render: (_, { after }) => after ?? '–' },
];

function FiguresTable({
  figures,
  names,
}: {
  figures: readonly FigureBetween[];
  names: readonly string[];
}) {
  const columns = useMemo<FigureColumns<FigureBetween>>(
    () => [
      { key: 'name', title: 'Reading, as built', rowScope: 'row', render: (_, { name }) => name },
      { key: 'before', title: names[0], align: 'right', render: (_, f) => f.words.before },
      { key: 'after', title: names[1], align: 'right', render: (_, f) => f.words.after },
    ],
    [names],
  );
  return (
    <section aria-label="Readings of both">
      <FigureTable<FigureBetween>
        rowKey={(f) => f.name}
        columns={columns}
        lines={figures}
        empty="Nothing is read."
      />
    </section>
  );
}
