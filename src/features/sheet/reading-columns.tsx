import { Popover } from 'antd';
import { Trash2 } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import type { LayerId } from '@/core/sheet/layers';
import type { ReadingResult } from '@/core/sheet/solved-way';
import { meets, missBy } from '@/core/sheet/verdict';
import { printMeasured, printWanted } from '@/core/sheet/words';
import type { FigureColumns } from '@/ui/controls/figure-table';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { Coming } from '../shell/coming';
import { removeReading } from './actions/readings';
import type { ReadingLine } from './reading-line';
import { SpreadCell } from './spread-cell';
import { useReadingSpread } from './spreads';
import { setUi } from './ui-state';
import { percent } from './spread-words';
import { useEvaluated } from './use-evaluation';
import styles from './readings-table.module.css';

const WantedForm = lazy(() => import('./wanted-form').then((m) => ({ default: m.WantedForm })));

type Columns = FigureColumns<ReadingLine>;

const shouldCellUpdate = (a: ReadingLine, b: ReadingLine) =>
  a.reading !== b.reading || a.mark !== b.mark || a.name !== b.name;

/** What a version makes of a reading. */
const useResult = (id: string, version: LayerId): ReadingResult | undefined =>
  useEvaluated((e) => e?.readings.find((r) => r.id === id)?.results[version]);

/** The table's columns, one for each version: ideal, built, and every keep that is shown. */
export function readingColumns(versions: readonly [LayerId, string][]): Columns {
  return [
    {
      key: 'name',
      title: 'Reading',
      rowScope: 'row',
      shouldCellUpdate,
      render: (_, line) => <Name {...line} />,
    },
    {
      key: 'wanted',
      title: 'wanted',
      align: 'right',
      shouldCellUpdate,
      render: (_, line) => <Wanted {...line} />,
    },
    ...versions.slice(0, 2).map(versionColumn),
    {
      key: 'spread',
      title: 'spread 5–95 %',
      align: 'right',
      shouldCellUpdate,
      render: (_, line) => <SpreadCell {...line} />,
    },
    ...versions.slice(2).map(versionColumn),
    {
      key: 'verdict',
      title: 'verdict',
      align: 'right',
      className: styles.verdict,
      shouldCellUpdate,
      render: (_, line) => <Verdict {...line} />,
    },
    {
      key: 'remove',
      title: <span className="visually-hidden">Remove</span>,
      className: styles.remove,
      width: 30,
      shouldCellUpdate,
      render: (_, { reading, name }) => (
        <button
          type="button"
          aria-label={`Remove reading ${name}`}
          onClick={() => removeReading(reading.id)}
        >
          <Trash2 size={13} aria-hidden />
        </button>
      ),
    },
  ];
}

const versionColumn = ([id, name]: [LayerId, string]): Columns[number] => ({
  key: id,
  title: name,
  align: 'right',
  shouldCellUpdate,
  render: (_, line) => <Result {...line} version={id} />,
});

function Name({ reading, name }: ReadingLine) {
  const built = useResult(reading.id, 'built');
  const show = () => built && 'measured' in built && setUi({ cursorHz: built.measured.atHz });
  return (
    <button type="button" className={styles.name} title="Put the cursor there" onClick={show}>
      {name}
    </button>
  );
}

function Wanted({ reading, mark, name }: ReadingLine) {
  const [asking, setAsking] = useState(false);
  const { measure, wanted } = reading;
  return (
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
  );
}

function Result({ reading, mark, version }: ReadingLine & { version: LayerId }) {
  const result = useResult(reading.id, version);
  if (!result) return null;
  if ('measured' in result) {
    const { value, alsoHz } = result.measured;
    const shown = printMeasured(reading.measure, value, mark);
    if (!alsoHz) return shown;
    const also = `It passes the same level at ${alsoHz.map((hz) => printMeasured(reading.measure, hz, mark)).join(', ')} too.`;
    return (
      <>
        {shown}{' '}
        <Popover trigger={['hover', 'focus', 'click']} content={also}>
          <button type="button" className={styles.also} aria-label={also}>
            +{alsoHz.length}
          </button>
        </Popover>
      </>
    );
  }
  return (
    <Popover trigger={['hover', 'focus', 'click']} content={result.error}>
      <button type="button" className={styles.why} aria-label={`none: ${result.error}`}>
        none
      </button>
    </Popover>
  );
}

/** Says which versions meet the wish, and by how much the built one misses it. */
function Verdict({ reading: { id, wanted, measure }, mark }: ReadingLine) {
  const built = useResult(id, 'built');
  const ideal = useResult(id, 'ideal');
  const { of } = useReadingSpread(id);
  if (!wanted || !built) return null;
  if ('error' in built)
    return (
      <span className={styles.bad}>
        ✗ cannot be read<span className="visually-hidden">: {built.error}</span>
      </span>
    );
  const miss = missBy(wanted, built.measured.value);
  if (miss === 0)
    return (
      <span className={styles.good}>
        ✓ built
        {typeof of?.met === 'number' && (
          <span className={styles.boards}> · {percent(of.met, mark)}</span>
        )}
      </span>
    );
  const idealMeets = ideal && 'measured' in ideal && meets(wanted, ideal.measured.value);
  const by = printMeasured(measure, Math.abs(miss), mark);
  return (
    <span className={styles.bad}>
      ✗ built {by} too {miss > 0 ? 'high' : 'low'}; ideal{' '}
      {idealMeets ? 'meets it' : 'misses it too'}
    </span>
  );
}
