import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core';
import { horizontalListSortingStrategy, SortableContext } from '@dnd-kit/sortable';
import { memo } from 'react';
import { driverEnd, type DriverEnd } from '@/core/crossover/crossover-design';
import { formatFixed, formatSigned } from '@/core/quantity/format';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Way } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { EditableText } from '../sheet/editable-text';
import { useSorting } from '../sheet/use-sorting';
import { attempt } from '../shell/tell';
import { changeDriver, moveSlotTo, renameWay, turnOver } from './actions';
import { AddActive } from './add-active';
import { AddSlot } from './add-slot';
import { DriverChoice } from './driver-choice';
import { SlotCard } from './slot-card';
import styles from './ways-strip.module.css';

interface Props {
  sheetId: string;
  way: Way;
  index: number;
  count: number;
  crossover: Crossover;
  /** The stage that is chosen, where it stands in this way. */
  selected: string | null;
  /** How far its driver stands ahead of the deepest. */
  leadMetres: number;
}

/** A way from the amplifier to its driver: its slots in a row, and what it ends in. */
export const WayRow = memo(function WayRow(props: Props) {
  const { sheetId, way, index, count, crossover, selected, leadMetres } = props;
  const mark = usePreferences((p) => p.mark);
  const { sensors, items } = useSorting(
    way.stages.map((s) => s.id),
    'pointer',
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      attempt(() => moveSlotTo(String(active.id), items.indexOf(String(over.id))));
  };
  const end = driverEnd(way);
  const depth = end.place?.zMetres ?? 0;
  return (
    <li className={styles.way} data-way={index + 1} data-last={index === count - 1 || undefined}>
      <EditableText
        label={`Name of way ${index + 1}`}
        value={way.name}
        className={`${styles.wayName} ${styles[`way${index + 1}`]}`}
        onCommit={(name) => renameWay(way.id, name)}
      />
      <span className={styles.wire} aria-hidden />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={items} strategy={horizontalListSortingStrategy}>
          {way.stages.map((stage, i) => (
            <SlotCard
              key={stage.id}
              sheetId={sheetId}
              stage={stage}
              wayName={way.name}
              index={i}
              count={way.stages.length}
              selected={stage.id === selected}
            />
          ))}
        </SortableContext>
      </DndContext>
      {end.amplifier ? (
        <AddActive
          wayId={way.id}
          wayName={way.name}
          index={index}
          crossover={crossover}
          leadMetres={leadMetres}
        />
      ) : (
        <AddSlot
          wayId={way.id}
          wayName={way.name}
          driver={end.driver}
          index={index}
          crossover={crossover}
        />
      )}
      <span className={`${styles.wire} ${styles.rest}`} aria-hidden />
      <span className={styles.end}>
        {end.amplifier && <OwnAmplifier way={way.id} name={way.name} amplifier={end.amplifier} />}
        <DriverChoice wayId={way.id} wayName={way.name} driver={end.driver} name={end.name} />
        <button
          type="button"
          className={end.inverted ? `${styles.polarity} ${styles.turned}` : styles.polarity}
          aria-pressed={end.inverted}
          title="Plus and minus of the driver exchanged"
          onClick={() => attempt(() => turnOver(way.id))}
        >
          <span className="visually-hidden">{way.name}: </span>
          {end.inverted ? 'turned over' : 'as it is'}
        </button>
        {depth !== 0 && (
          <span className={styles.depth} title="How far its acoustic centre lies behind the front">
            {formatFixed(-1000 * depth, 0, mark)} mm back
          </span>
        )}
      </span>
    </li>
  );
});

/** The amplifier that a way has for itself. */
function OwnAmplifier({
  way,
  name,
  amplifier,
}: {
  way: string;
  name: string;
  amplifier: NonNullable<DriverEnd['amplifier']>;
}) {
  const mark = usePreferences((p) => p.mark);
  return (
    <span className={styles.figures} title="Its own amplifier">
      <EditableQuantity
        label={`Amplifier gain of ${name}`}
        value={amplifier.gainDb}
        kind="decibels"
        mark={mark}
        shown={`${formatSigned(amplifier.gainDb, mark)} dB`}
        onCommit={(gainDb) => changeDriver(way, { amplifier: { ...amplifier, gainDb: gainDb! } })}
      />
    </span>
  );
}
