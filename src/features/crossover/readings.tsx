import { memo, useMemo } from 'react';
import { hasAmplifiers } from '@/core/crossover/active';
import { drawnNames, waysDrawnAlike } from '@/core/crossover/network-drawing';
import type { CrossoverLayer } from '@/core/crossover/picture';
import type { CrossoverFigure } from '@/core/crossover/readings';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Keep, Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import { setUi } from '../sheet/ui-state';
import { useAlike, useSteady } from '../sheet/use-alike';
import { changeCrossover } from './actions';
import { useFigure } from './follow';
import { readingLines, type ReadingLine } from '@/core/crossover/reading-lines';
import table from '../sheet/readings-table.module.css';
import styles from './readings.module.css';

type LayerId = CrossoverLayer['id'];

/** What a crossover is judged by: wanted, on nominal loads, built on the true drivers, and kept. */
export function CrossoverReadings({ sheet, crossover }: { sheet: Sheet; crossover: Crossover }) {
  const drawn = useAlike(sheet.ways, waysDrawnAlike);
  const keeps = useSteady(sheet.keeps.filter((k) => k.shown).map(({ id, name }) => ({ id, name })));
  return <Table id={sheet.id} ways={drawn} keeps={keeps} crossover={crossover} />;
}

interface Props {
  id: string;
  ways: Sheet['ways'];
  keeps: readonly Pick<Keep, 'id' | 'name'>[];
  crossover: Crossover;
}

const Table = memo(function Table({ id, ways, keeps, crossover }: Props) {
  const mark = usePreferences((p) => p.mark);
  const names = useMemo(() => drawnNames({ ways }), [ways]);
  const lines = useMemo(
    () =>
      readingLines(crossover, mark, (part) => names.get(part) ?? part).filter(
        // Behind amplifiers of their own no resistor gets hot.
        (line) => line.id !== 'heat' || !hasAmplifiers({ ways }),
      ),
    [crossover, mark, names, ways],
  );
  const columns = useMemo(() => columnsOf(id, keeps), [id, keeps]);
  return (
    <section className={`${table.host} ${styles.host}`} aria-label="Readings" data-figures>
      <FigureTable<ReadingLine>
        rowKey={(line) => line.id}
        columns={columns}
        lines={lines}
        empty="Nothing is read."
      />
      <p className={styles.caution}>
        Before the first sweep: least load within the amplifier’s rating, a capacitor in line with
        the tweeter, low level, ears away. What is hot or charged stays so for a while.
      </p>
    </section>
  );
});

interface CellProps {
  /** The sheet. */
  id: string;
  line: ReadingLine;
}

/** A column for each version. Their cells follow the picture by themselves. */
function columnsOf(id: string, keeps: Props['keeps']): FigureColumns<ReadingLine> {
  const version = (layer: LayerId, title: string): FigureColumns<ReadingLine>[number] => ({
    key: layer,
    title,
    align: 'right',
    render: (_, line) => <Figure id={id} line={line} layer={layer} />,
  });
  return [
    {
      key: 'name',
      title: 'Reading',
      rowScope: 'row',
      render: (_, line) => <Name id={id} line={line} />,
    },
    { key: 'wanted', title: 'wanted', align: 'right', render: (_, line) => <Wanted {...line} /> },
    version('nominal', 'nominal load'),
    version('built', 'true drivers'),
    ...keeps.map((keep) => version(`keep:${keep.id}`, keep.name)),
    {
      key: 'verdict',
      title: 'verdict',
      align: 'right',
      className: table.verdict,
      render: (_, line) => <Verdict id={id} line={line} />,
    },
  ];
}

/** Something of what a layer makes of a reading. */
const useReading = <T,>(
  { id, line }: CellProps,
  layer: LayerId,
  of: (figure: CrossoverFigure) => T,
): T | undefined =>
  useFigure(id, ({ layers }) => {
    const figure = layers.find((l) => l.id === layer)?.figures[line.id];
    return figure ? of(figure) : undefined;
  });

function Name(cell: CellProps) {
  const atHz = useReading(cell, 'built', (figure) => figure.atHz);
  return (
    <button
      type="button"
      className={table.name}
      title="Put the cursor there"
      onClick={() => {
        if (atHz !== undefined) setUi({ cursorHz: atHz });
      }}
    >
      {cell.line.name}
    </button>
  );
}

function Wanted({ name, wanted }: ReadingLine) {
  const mark = usePreferences((p) => p.mark);
  return (
    <EditableQuantity
      label={`${name}, wanted`}
      value={wanted.value}
      kind={wanted.kind}
      mark={mark}
      shown={wanted.words}
      onCommit={(x) => changeCrossover(wanted.change(x!))}
    />
  );
}

function Figure({ layer, ...cell }: CellProps & { layer: LayerId }) {
  return useReading(cell, layer, cell.line.print) ?? '–';
}

function Verdict(cell: CellProps) {
  const met = useReading(cell, 'built', cell.line.met);
  const more = useReading(cell, 'built', (figure) => cell.line.more?.(figure));
  if (met === undefined) return null;
  return (
    <span className={met ? table.good : table.bad}>
      {met ? '✓ ' : '✗ '}
      {more ?? (met ? 'met' : 'missed')}
    </span>
  );
}
