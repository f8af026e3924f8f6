import { useMemo, type ReactNode } from 'react';
import { knownKey, workedOut } from '@/core/bank/bank';
import type { BankPicture } from '@/core/bank/picture';
import type { Channel } from '@/core/sheet/bank-schema';
import { messageOf } from '@/core/errors';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Stage, Way } from '@/core/sheet/schema';
import type { StageFigures } from '@/core/topologies/topology';
import { quantityOfPart, valuesOf } from '@/core/sheet/stage';
import { usePreferences } from '@/store/preferences';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { builtFigures } from '@/core/bank/recover';
import { setKnown } from './bank-actions';
import { RecoveredList } from './recovered';
import styles from './bank-screen.module.css';

interface PartLine {
  key: string;
  part: string;
  kind: QuantityKind;
  /** Counted from 1. */
  stage: number;
  known: number | undefined;
  built: number;
  exact: number;
}
/** A stage's parts follow its heading. */
type Line = PartLine | { key: string; heading: string };

interface PartsProps {
  channel: Channel;
  way: Way;
  picture: BankPicture | null;
}

const FIGURES = {
  f0: {
    name: 'the frequency',
    print: (x: number, mark: DecimalMark) => formatQuantity(x, 'hertz', { unit: true, mark }),
  },
  Q: { name: 'Q', print: (x: number, mark: DecimalMark) => formatQuantity(x, 'ratio', { mark }) },
  gain: {
    name: 'the gain',
    print: (x: number, mark: DecimalMark) => formatQuantity(x, 'ratio', { mark }),
  },
} as const;

/** Known and unknown parts of one channel, and where its level goes. */
export function Parts({ channel, way, picture }: PartsProps) {
  const mark = usePreferences((p) => p.mark);
  const { exact, missed, problem } = useMemo(() => solved(channel, way), [channel, way]);
  const budget = picture?.channels.find((c) => c.id === channel.id)?.budgetDb ?? [];
  return (
    <>
      <h2>Parts at {formatQuantity(channel.centreHz, 'hertz', { unit: true, mark })}</h2>
      <p className={styles.soft}>
        Type a value to make a part known; empty it to have it worked out.
      </p>
      {problem && <p role="alert">{problem}</p>}
      {missed.map((m) => (
        <p key={`${m.stage} ${m.figure}`} role="status">
          The given parts leave {FIGURES[m.figure].name} of stage {m.stage + 1} no choice: it comes
          to {FIGURES[m.figure].print(m.got, mark)}, {FIGURES[m.figure].print(m.wanted, mark)} was
          wanted.
        </p>
      ))}
      <div className={styles.scroll}>
        <FigureTable<Line>
          rowKey={({ key }) => key}
          rowClassName={(line) => ('heading' in line ? styles.stage : '')}
          columns={partColumns(channel.id, mark)}
          lines={linesOf(exact, channel, way, budget, mark)}
          empty="There is nothing here yet."
        />
        <RecoveredList channel={channel} way={way} mark={mark} />
      </div>
    </>
  );
}

/** What the parts come to, or why they cannot. */
function solved(channel: Channel, way: Way): ReturnType<typeof workedOut> & { problem?: string } {
  try {
    return workedOut(channel, way);
  } catch (error) {
    return { exact: {}, missed: [], problem: messageOf(error) };
  }
}

const quantityOf = (stage: Stage, part: string) => quantityOfPart(stage, part)!.quantity;

function linesOf(
  exact: Readonly<Record<string, number>>,
  channel: Channel,
  way: Way,
  budget: readonly number[],
  mark: DecimalMark,
): Line[] {
  const figures = builtFigures(way);
  return way.stages.flatMap((stage, n): Line[] => [
    { key: stage.id, heading: headingOf(n, figures[n], budget[n], mark) },
    ...Object.entries(valuesOf(stage)).map(([part, built]): PartLine => {
      const key = knownKey(n, part);
      return {
        key,
        part,
        kind: quantityOf(stage, part),
        stage: n + 1,
        known: channel.known[key],
        built,
        exact: exact[key],
      };
    }),
  ]);
}

/** “Stage 2, 80.9 Hz, Q 1.43, gain 3.2 dB: leaves 0.0 dB”, as it is built. */
function headingOf(
  n: number,
  figures: StageFigures | undefined,
  leavesDb: number | undefined,
  mark: DecimalMark,
): string {
  const words = [`Stage ${n + 1}`];
  if (figures) {
    words.push(formatQuantity(figures.f0Hz, 'hertz', { unit: true, digits: 4, mark }));
    if (figures.q !== undefined) words.push(`Q ${formatQuantity(figures.q, 'ratio', { mark })}`);
    const gainDb = 20 * Math.log10(Math.abs(figures.gain));
    words.push(`gain ${formatFixed(gainDb, 1, mark)} dB`);
  }
  const leaves = leavesDb === undefined ? '' : `: leaves ${formatFixed(leavesDb, 1, mark)} dB`;
  return `${words.join(', ')}${leaves}`;
}

function partColumns(channelId: string, mark: DecimalMark): FigureColumns<Line> {
  const print = (value: number, { kind }: PartLine) =>
    formatQuantity(value, kind, { unit: true, digits: 3, mark });
  const column = (
    key: string,
    title: string,
    render: (line: PartLine) => ReactNode,
    className?: string,
  ): FigureColumns<Line>[number] => ({
    key,
    title,
    align: 'right',
    className,
    onCell: (line) => ({ colSpan: 'heading' in line ? 0 : 1 }),
    render: (_, line) => ('heading' in line ? null : render(line)),
  });
  return [
    {
      key: 'part',
      title: 'Part',
      rowScope: 'row',
      onCell: (line) => ({ colSpan: 'heading' in line ? 4 : 1 }),
      render: (_, line) => ('heading' in line ? line.heading : line.part),
    },
    column('known', 'Known', (line) => (
      <EditableQuantity
        label={`Known ${line.part} of stage ${line.stage}`}
        value={line.known ?? null}
        kind={line.kind}
        mark={mark}
        clearable
        shown={line.known === undefined ? 'unknown' : print(line.known, line)}
        onCommit={(x) => setKnown(channelId, line.key, x)}
      />
    )),
    column('built', 'Built', (line) => print(line.built, line)),
    column('exact', 'Exact', (line) => print(line.exact, line), styles.soft),
  ];
}
