'use client';

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import { Dropdown } from 'antd';
import { Ellipsis } from 'lucide-react';
import { Fragment, memo, useMemo } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { AskKind } from '@/core/design/ask';
import type { Evaluation, EvaluatedStage } from '@/core/sheet/evaluate';
import type { Joint } from '@/core/sheet/joints';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { stageName, stageShort } from '@/core/sheet/stage';
import type { StageKind } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { Sparkline } from '@/ui/chart/sparkline';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import {
  duplicateStage,
  moveStage,
  removeStage,
  setLoad,
  setSource,
  toggleBypass,
} from './actions';
import { attempt } from '../shell/tell';
import { EditableText } from './editable-text';
import { JointMark } from './joint-mark';
import { sameProps } from './same-props';
import { setUi } from './ui-state';
import styles from './path-strip.module.css';

interface PathStripProps {
  sheet: Sheet;
  /** The stage whose circuit is shown. */
  selected: string | undefined;
  evaluation: Evaluation | null;
}

/** Source, stages and load in signal order, with what is lost where they meet. */
export function PathStrip({ sheet, selected, evaluation }: PathStripProps) {
  const mark = usePreferences((p) => p.mark);
  const way = sheet.ways[0];
  const end = way.to.is === 'driver' ? { ohms: null, farads: null } : way.to;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  // The same list while the same stages stand in the same order: a new one draws every card again.
  const order = JSON.stringify(way.stages.map((s) => s.id));
  const items = useMemo(() => JSON.parse(order) as string[], [order]);
  const joints = evaluation?.joints ?? [];
  const jointBefore = (id: string): Joint | undefined => joints.find((j) => j.after === id);
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    moveStage(
      String(active.id),
      way.stages.findIndex((s) => s.id === over.id),
    );
  };
  return (
    <section className={styles.strip} aria-label="Signal path" data-figures>
      <div className={styles.end}>
        <EditableText
          label="Source name"
          value={sheet.source.name}
          className={styles.endName}
          onCommit={(name) => setSource({ name })}
        />
        <span className="mono">
          <EditableQuantity
            label="Source resistance"
            value={sheet.source.ohms}
            kind="ohms"
            mark={mark}
            shown={`${formatQuantity(sheet.source.ohms, 'ohms', { mark })} Ω`}
            onCommit={(ohms) => setSource({ ohms: ohms! })}
          />
          {' · '}
          <EditableQuantity
            label="Source voltage"
            value={sheet.source.volts}
            kind="volts"
            mark={mark}
            shown={formatQuantity(sheet.source.volts, 'volts', { unit: true, mark })}
            onCommit={(volts) => setSource({ volts: volts! })}
          />
        </span>
      </div>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={items} strategy={horizontalListSortingStrategy}>
          {way.stages.map((stage, i) => (
            <Fragment key={stage.id}>
              <JointMark
                joint={jointBefore(stage.id)}
                after={i === 0 ? null : way.stages[i - 1].id}
                first={stageKindOf(sheet.ask.kind)}
                skipped={stage.bypassed}
              />
              <StageCard
                stage={stage}
                index={i}
                count={way.stages.length}
                evaluated={evaluation?.stages.find((s) => s.id === stage.id)}
                outputDb={lastPeak(evaluation)}
                selected={stage.id === selected}
              />
            </Fragment>
          ))}
        </SortableContext>
      </DndContext>
      <JointMark
        joint={jointBefore('load')}
        after={way.stages[way.stages.length - 1]?.id ?? null}
        first={stageKindOf(sheet.ask.kind)}
        skipped={false}
      />
      <div className={styles.end}>
        <EditableText
          label="Load name"
          value={way.to.name}
          className={styles.endName}
          onCommit={(name) => setLoad({ name })}
        />
        <span className="mono">
          <EditableQuantity
            label="Load resistance"
            value={end.ohms}
            kind="ohms"
            mark={mark}
            clearable
            shown={end.ohms === null ? 'open' : `${formatQuantity(end.ohms, 'ohms', { mark })} Ω`}
            onCommit={(ohms) => setLoad({ ohms })}
          />
          {' · '}
          <EditableQuantity
            label="Load capacitance"
            value={end.farads}
            kind="farads"
            mark={mark}
            clearable
            shown={
              end.farads === null ? 'no C' : `${formatQuantity(end.farads, 'farads', { mark })}F`
            }
            onCommit={(farads) => setLoad({ farads })}
          />
        </span>
      </div>
    </section>
  );
}

/** The kind of stage an ask is mostly made of, offered first. */
function stageKindOf(kind: AskKind): StageKind {
  return kind === 'band-stop' ? 'notch' : kind === 'wide-band' ? 'high-pass' : kind;
}

function lastPeak(evaluation: Evaluation | null): number {
  const peaks = evaluation?.stages.flatMap((s) => s.peakDb ?? []) ?? [];
  return peaks[peaks.length - 1] ?? 0;
}

interface StageCardProps {
  stage: Stage;
  index: number;
  count: number;
  evaluated: EvaluatedStage | undefined;
  outputDb: number;
  selected: boolean;
}

const StageCard = memo(function StageCard({
  stage,
  index,
  count,
  evaluated,
  outputDb,
  selected,
}: StageCardProps) {
  const mark = usePreferences((p) => p.mark);
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: stage.id,
  });
  const figures = evaluated?.figures;
  const inner =
    evaluated?.peakDb !== undefined && index < count - 1
      ? evaluated.peakDb - Math.max(0, outputDb)
      : -Infinity;
  const select = () =>
    setUi({ stageId: stage.id, partId: null, editingPart: null, wholePath: false });
  const classes = [
    styles.card,
    selected && styles.selected,
    stage.bypassed && styles.bypassed,
    isDragging && styles.dragging,
  ]
    .filter(Boolean)
    .join(' ');
  return (
    <div
      ref={setNodeRef}
      className={classes}
      style={{ transform: transform ? `translateX(${transform.x}px)` : undefined, transition }}
    >
      <button
        type="button"
        className={styles.body}
        onClick={select}
        {...listeners}
        {...attributes}
        role="button"
        aria-pressed={selected}
      >
        <span className="visually-hidden">
          Stage {index + 1}, {stageName(stage)}:
        </span>
        <span className={styles.name}>{stageShort(stage)}</span>
        <span
          className={`mono ${styles.figures}`}
          title={
            evaluated?.figuresAreAverages
              ? 'Parts that should be equal are not: these are the figures of their averages. The curve is the circuit’s own.'
              : undefined
          }
        >
          {figures &&
            `${evaluated?.figuresAreAverages ? '≈ ' : ''}${formatQuantity(figures.f0Hz, 'hertz', { mark })}${figures.f0Hz < 1000 ? ' Hz' : ''}${figures.q === undefined ? '' : ` · Q ${formatQuantity(figures.q, 'ratio', { mark })}`}`}
        </span>
        <span
          className={
            stage.bypassed || inner > 0.5 || evaluated?.problem ? styles.warned : styles.quiet
          }
          title={evaluated?.problem}
        >
          {stage.bypassed
            ? 'bypassed'
            : inner > 0.5
              ? `inside +${formatFixed(inner, 1, mark)} dB`
              : figures
                ? gainWords(figures.gain, mark)
                : (evaluated?.problem ?? '')}
        </span>
        {evaluated?.thumbnail && (
          <Sparkline
            x={evaluated.thumbnail.frequenciesHz}
            y={evaluated.thumbnail.levelDb}
            floor={-24}
            width={44}
            height={34}
            className={styles.curve}
          />
        )}
      </button>
      <StageMenu id={stage.id} index={index} count={count} bypassed={stage.bypassed} />
    </div>
  );
}, sameProps);

interface StageMenuProps {
  id: string;
  index: number;
  count: number;
  bypassed: boolean;
}

const StageMenu = memo(function StageMenu({ id, index, count, bypassed }: StageMenuProps) {
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'bypass', label: bypassed ? 'Put back into the path' : 'Bypass' },
          { key: 'duplicate', label: 'Duplicate' },
          { key: 'left', label: 'Move left', disabled: index === 0 },
          { key: 'right', label: 'Move right', disabled: index === count - 1 },
          { type: 'divider' },
          { key: 'remove', label: 'Remove' },
        ],
        onClick: ({ key }) => {
          attempt(() => {
            if (key === 'bypass') toggleBypass(id);
            if (key === 'duplicate') duplicateStage(id);
            if (key === 'left') moveStage(id, index - 1);
            if (key === 'right') moveStage(id, index + 1);
            if (key === 'remove') removeStage(id);
          });
        },
      }}
    >
      <button type="button" className={styles.more} aria-label={`Actions for stage ${index + 1}`}>
        <Ellipsis size={15} aria-hidden />
      </button>
    </Dropdown>
  );
});

function gainWords(gain: number, mark: 'point' | 'comma'): string {
  const dB = 20 * Math.log10(Math.abs(gain));
  return `${formatFixed(dB, 1, mark)} dB${gain < 0 ? ', inverted' : ''}`;
}
