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
} from '@dnd-kit/sortable';
import { Fragment, useMemo } from 'react';
import type { AskKind } from '@/core/design/ask';
import { formatFixed } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { Joint } from '@/core/sheet/joints';
import type { Sheet, Stage } from '@/core/sheet/schema';
import type { StageKind } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { moveStage } from './actions';
import { JointMark } from './joint-mark';
import { LoadEnd, SourceEnd } from './path-ends';
import { StageCard } from './stage-card';
import styles from './path-strip.module.css';

interface PathStripProps {
  sheet: Sheet;
  /** The stage whose circuit is shown. */
  selected: string | undefined;
  evaluation: Evaluation | null;
}

// The same objects always: new ones would draw every card again.
const BY_POINTER = { activationConstraint: { distance: 6 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

/** Source, stages and load in signal order, with what is lost where they meet. */
export function PathStrip({ sheet, selected, evaluation }: PathStripProps) {
  const mark = usePreferences((p) => p.mark);
  const way = sheet.ways[0];
  const sensors = useSensors(
    useSensor(PointerSensor, BY_POINTER),
    useSensor(KeyboardSensor, BY_KEYS),
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
      <SourceEnd source={sheet.source} />
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
                inside={insideWords(way.stages, i, evaluation?.peaksDb, mark)}
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
      <LoadEnd to={way.to} />
    </section>
  );
}

/** The kind of stage an ask is mostly made of, offered first. */
function stageKindOf(kind: AskKind): StageKind {
  return kind === 'band-stop' ? 'notch' : kind === 'wide-band' ? 'high-pass' : kind;
}

/** Rises of less than this above the end of the path are not worth a word, dB. */
const WORTH_DB = 0.5;

/** How far a stage inside the path rises above its end, as it is printed. */
function insideWords(
  stages: readonly Stage[],
  index: number,
  peaksDb: Evaluation['peaksDb'] | undefined,
  mark: DecimalMark,
): string | null {
  const own = peaksDb?.[stages[index].id];
  if (!peaksDb || own === undefined || index === stages.length - 1) return null;
  const last = stages.findLast((s) => peaksDb[s.id] !== undefined);
  const over = own - Math.max(0, last ? peaksDb[last.id] : 0);
  return over > WORTH_DB ? formatFixed(over, 1, mark) : null;
}
