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
import { Ellipsis, Plus } from 'lucide-react';
import { Fragment, memo, useState, type ReactNode } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Evaluation, EvaluatedStage } from '@/core/sheet/evaluate';
import type { Joint } from '@/core/sheet/joints';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { usePreferences } from '@/store/preferences';
import { Sparkline } from '@/ui/chart/sparkline';
import { EditableQuantity } from '@/ui/controls/quantity-input';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { Tex } from '@/ui/controls/tex';
import {
  addStage,
  duplicateStage,
  moveStage,
  removeStage,
  setLoad,
  setSource,
  toggleBypass,
} from './actions';
import { EditableText } from './editable-text';
import { setUi } from './ui-state';
import styles from './path-strip.module.css';

/** Equal when every prop says the same; the engine's answers are fresh objects each time. */
function sameProps<P extends object>(a: P, b: P): boolean {
  const keys = Object.keys(b) as (keyof P)[];
  return keys.every((k) => a[k] === b[k] || JSON.stringify(a[k]) === JSON.stringify(b[k]));
}

/** A stage is dragged down when its joint loses more than this. */
const WARN_DB = -0.5;

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
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
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
    <section className={styles.strip} aria-label="Signal path">
      <div className={styles.end}>
        <EditableText
          label="Source name"
          value={way.source.name}
          className={styles.endName}
          onCommit={(name) => setSource({ name })}
        />
        <span className="mono">
          <EditableQuantity
            label="Source resistance"
            value={way.source.ohms}
            kind="ohms"
            mark={mark}
            shown={`${formatQuantity(way.source.ohms, 'ohms', { mark })} Ω`}
            onCommit={(ohms) => setSource({ ohms: ohms! })}
          />
          {' · '}
          <EditableQuantity
            label="Source voltage"
            value={way.source.volts}
            kind="volts"
            mark={mark}
            shown={formatQuantity(way.source.volts, 'volts', { unit: true, mark })}
            onCommit={(volts) => setSource({ volts: volts! })}
          />
        </span>
      </div>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext
          items={way.stages.map((s) => s.id)}
          strategy={horizontalListSortingStrategy}
        >
          {way.stages.map((stage, i) => (
            <Fragment key={stage.id}>
              <JointMark
                joint={jointBefore(stage.id)}
                after={i === 0 ? null : way.stages[i - 1].id}
                kind={sheet.ask.kind}
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
        kind={sheet.ask.kind}
        skipped={false}
      />
      <div className={styles.end}>
        <EditableText
          label="Load name"
          value={way.load.name}
          className={styles.endName}
          onCommit={(name) => setLoad({ name })}
        />
        <span className="mono">
          <EditableQuantity
            label="Load resistance"
            value={way.load.ohms}
            kind="ohms"
            mark={mark}
            clearable
            shown={
              way.load.ohms === null
                ? 'open'
                : `${formatQuantity(way.load.ohms, 'ohms', { mark })} Ω`
            }
            onCommit={(ohms) => setLoad({ ohms })}
          />
          {' · '}
          <EditableQuantity
            label="Load capacitance"
            value={way.load.farads}
            kind="farads"
            mark={mark}
            clearable
            shown={
              way.load.farads === null
                ? 'no C'
                : `${formatQuantity(way.load.farads, 'farads', { mark })}F`
            }
            onCommit={(farads) => setLoad({ farads })}
          />
        </span>
      </div>
    </section>
  );
}

function lastPeak(evaluation: Evaluation | null): number {
  const active = evaluation?.stages.filter((s) => Number.isFinite(s.peakDb)) ?? [];
  return active[active.length - 1]?.peakDb ?? 0;
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
  const topology = topologyOf(stage.topology);
  const figures = evaluated?.figures;
  const inner =
    evaluated && index < count - 1 ? evaluated.peakDb - Math.max(0, outputDb) : -Infinity;
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
          Stage {index + 1}, {topology.name}:
        </span>
        <span className={styles.name}>{topology.short}</span>
        <span className={`mono ${styles.figures}`}>
          {figures &&
            `${formatQuantity(figures.f0Hz, 'hertz', { mark })}${figures.f0Hz < 1000 ? ' Hz' : ''}${figures.q === undefined ? '' : ` · Q ${formatQuantity(figures.q, 'ratio', { mark })}`}`}
        </span>
        <span className={stage.bypassed || inner > 0.5 ? styles.warned : styles.quiet}>
          {stage.bypassed
            ? 'bypassed'
            : inner > 0.5
              ? `inside +${formatFixed(inner, 1, mark)} dB`
              : figures
                ? gainWords(figures.gain, mark)
                : ''}
        </span>
        {evaluated && (
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
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: 'bypass', label: stage.bypassed ? 'Put back into the path' : 'Bypass' },
            { key: 'duplicate', label: 'Duplicate' },
            { key: 'left', label: 'Move left', disabled: index === 0 },
            { key: 'right', label: 'Move right', disabled: index === count - 1 },
            { type: 'divider' },
            { key: 'remove', label: 'Remove' },
          ],
          onClick: ({ key }) => {
            if (key === 'bypass') toggleBypass(stage.id);
            if (key === 'duplicate') duplicateStage(stage.id);
            if (key === 'left') moveStage(stage.id, index - 1);
            if (key === 'right') moveStage(stage.id, index + 1);
            if (key === 'remove') removeStage(stage.id);
          },
        }}
      >
        <button type="button" className={styles.more} aria-label={`Actions for stage ${index + 1}`}>
          <Ellipsis size={15} aria-hidden />
        </button>
      </Dropdown>
    </div>
  );
}, sameProps);

function gainWords(gain: number, mark: 'point' | 'comma'): string {
  const dB = 20 * Math.log10(Math.abs(gain));
  return `${formatFixed(dB, 1, mark)} dB${gain < 0 ? ', inverted' : ''}`;
}

interface JointMarkProps {
  joint: Joint | undefined;
  /** Stage a new one would follow; null for the start of the path. */
  after: string | null;
  kind: 'low-pass' | 'high-pass';
  /** True before a bypassed stage, where nothing meets. */
  skipped: boolean;
}

/** The line between two cards: impedances both ways, what the load takes, and room for another stage. */
const JointMark = memo(function JointMark({ joint, after, kind, skipped }: JointMarkProps) {
  const [open, setOpen] = useState(false);
  const mark = usePreferences((p) => p.mark);
  const ohms = (value: number) =>
    Number.isFinite(value) ? formatQuantity(value, 'ohms', { mark, digits: 2 }) : 'open';
  const heavy = joint !== undefined && joint.lossDb < WARN_DB;
  return (
    <div className={styles.joint}>
      <span className={`mono ${styles.ohms}`}>
        {joint && !skipped ? `${ohms(joint.sourceOhms)} | ${ohms(joint.loadOhms)}` : ''}
      </span>
      <div className={styles.wire}>
        <OnDemandPopover
          open={open}
          onOpenChange={setOpen}
          content={
            <JointPanel joint={skipped ? undefined : joint} after={after} kind={kind} ohms={ohms} />
          }
        >
          <button
            type="button"
            className={heavy ? `${styles.node} ${styles.heavy}` : styles.node}
            onClick={() => setOpen(true)}
            aria-label={
              joint && !skipped
                ? `Joint, loses ${formatFixed(joint.lossDb, 2, mark)} dB; add a stage here`
                : 'Add a stage here'
            }
          >
            <Plus size={11} strokeWidth={2.4} aria-hidden />
          </button>
        </OnDemandPopover>
      </div>
      <span className={heavy ? `mono ${styles.warned}` : `mono ${styles.quiet}`}>
        {joint && !skipped ? `${heavy ? '! ' : ''}${formatFixed(joint.lossDb, 2, mark)} dB` : ''}
      </span>
    </div>
  );
}, sameProps);

function JointPanel({
  joint,
  after,
  kind,
  ohms,
}: {
  joint: Joint | undefined;
  after: string | null;
  kind: 'low-pass' | 'high-pass';
  ohms: (value: number) => string;
}): ReactNode {
  const mark = usePreferences((p) => p.mark);
  return (
    <div className={styles.panel}>
      {joint && Number.isFinite(joint.loadOhms) && (
        <>
          <Tex
            formula={`20\\log_{10}\\left|\\frac{Z_{load}}{Z_{source}+Z_{load}}\\right| = ${formatFixed(joint.lossDb, 3).replace('−', '-')}\\,\\mathrm{dB}`}
          />
          <p>
            At {formatQuantity(joint.atHz, 'hertz', { unit: true, mark })} the side before shows{' '}
            {ohms(joint.sourceOhms)} Ω and the side after {ohms(joint.loadOhms)} Ω.{' '}
            {joint.lossDb < WARN_DB
              ? 'The stage is dragged down: raise what follows, or put a buffer here.'
              : ''}
          </p>
        </>
      )}
      <p className={styles.panelHead}>Add a stage here</p>
      <ul>
        {TOPOLOGIES.map((t) => (
          <li key={t.id} className={t.kind === kind ? undefined : styles.otherKind}>
            <button
              type="button"
              onClick={() => setUi({ stageId: addStage(t, after), partId: null, wholePath: false })}
            >
              {t.name}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
