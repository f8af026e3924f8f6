'use client';

import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core';
import { horizontalListSortingStrategy, SortableContext } from '@dnd-kit/sortable';
import { Fragment } from 'react';
import type { AskKind } from '@/core/design/ask';
import type { Sheet } from '@/core/sheet/schema';
import type { StageKind } from '@/core/topologies/topology';
import { moveStage } from './actions/stages';
import { JointMark } from './joint-mark';
import { LoadEnd, SourceEnd } from './path-ends';
import { StageCard } from './stage-card';
import { useSorting } from './use-sorting';
import styles from './path-strip.module.css';

interface PathStripProps {
  sheet: Sheet;
  /** The stage whose circuit is shown. */
  selected: string | undefined;
}

/** Source, stages and load in signal order, with what is lost where they meet. */
export function PathStrip({ sheet, selected }: PathStripProps) {
  const way = sheet.ways[0];
  const { sensors, items } = useSorting(
    way.stages.map((s) => s.id),
    'pointer and keys',
  );
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
                into={stage.id}
                after={i === 0 ? null : way.stages[i - 1].id}
                first={stageKindOf(sheet.ask.kind)}
                skipped={stage.bypassed}
              />
              <StageCard
                stage={stage}
                index={i}
                count={way.stages.length}
                selected={stage.id === selected}
              />
            </Fragment>
          ))}
        </SortableContext>
      </DndContext>
      <JointMark
        into="load"
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
