import { Dropdown } from 'antd';
import { memo, useMemo } from 'react';
import { formatFixed, formatQuantity, formatSigned } from '@/core/quantity/format';
import { driverEnd, type DriverEnd } from '@/core/crossover/crossover-design';
import { MOST_WAYS } from '@/core/crossover/ways';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet, Way } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { addWay, changeDriver, setAmplifier, turnOver } from './actions';
import { AddActive } from './add-active';
import { AddSlot } from './add-slot';
import { DriverChoice } from './driver-choice';
import { usePicture } from './follow';
import { SlotCard } from './slot-card';
import styles from './ways-strip.module.css';

/** One amplifier, and a row for each way from it to its driver. */
export function WaysStrip({
  sheet,
  crossover,
  selected,
}: {
  sheet: Sheet;
  crossover: Crossover;
  selected: string | null;
}) {
  const gains = useSlotGains(sheet);
  const deepest = Math.min(...sheet.ways.map(depthOf));
  return (
    <section className={styles.strip} aria-label="Ways" data-figures>
      <div className={styles.head}>
        <Amplifier source={sheet.source} />
        {sheet.ways.length < MOST_WAYS && <AddWay />}
      </div>
      <ol className={styles.ways}>
        {sheet.ways.map((way, i) => (
          <WayRow
            key={way.id}
            way={way}
            index={i}
            count={sheet.ways.length}
            crossover={crossover}
            selected={way.stages.some((s) => s.id === selected) ? selected : null}
            adds={gains[i]}
            leadMetres={depthOf(way) - deepest}
          />
        ))}
      </ol>
    </section>
  );
}

/** Puts one more way beside the others. */
const AddWay = memo(function AddWay() {
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'band', label: 'One more band, above the others' },
          { key: 'helper', label: 'A helper of the lowest: half a way' },
        ],
        onClick: ({ key }) => attempt(() => addWay(key as 'band' | 'helper')),
      }}
    >
      <button type="button" className={styles.addWay}>
        + way
      </button>
    </Dropdown>
  );
});

const depthOf = (way: Way): number => driverEnd(way).place?.zMetres ?? 0;

/** What the slots of each way add to its level, as last solved: rows are drawn anew where it changed. */
function useSlotGains(sheet: Sheet): readonly Readonly<Record<string, number>>[] {
  const picture = usePicture(sheet.id);
  const ways = picture?.layers.find((l) => l.id === 'built')?.ways;
  const key = JSON.stringify(
    ways?.map(({ slots }) =>
      Object.fromEntries(slots.map(({ stage, db }) => [stage, Number(db.toFixed(1))])),
    ) ?? [],
  );
  return useMemo(() => JSON.parse(key) as Record<string, number>[], [key]);
}

const Amplifier = memo(function Amplifier({ source }: Pick<Sheet, 'source'>) {
  const mark = usePreferences((p) => p.mark);
  return (
    <div className={styles.amplifier}>
      <span className={styles.name}>{source.name}</span>
      <span className={styles.figures}>
        <EditableQuantity
          label="Amplifier voltage"
          value={source.volts}
          kind="volts"
          mark={mark}
          shown={formatQuantity(source.volts, 'volts', { unit: true, mark, digits: 3 })}
          onCommit={(volts) => setAmplifier({ volts: volts! })}
        />
        {' · '}
        <EditableQuantity
          label="Amplifier resistance"
          value={source.ohms}
          kind="ohms"
          mark={mark}
          shown={formatQuantity(source.ohms, 'ohms', { unit: true, mark, digits: 2 })}
          onCommit={(ohms) => setAmplifier({ ohms: ohms! })}
        />
      </span>
    </div>
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

interface RowProps {
  way: Way;
  index: number;
  count: number;
  crossover: Crossover;
  selected: string | null;
  /** What its slots add, by stage. */
  adds: Readonly<Record<string, number>> | undefined;
  /** How far its driver stands ahead of the deepest. */
  leadMetres: number;
}

const WayRow = memo(function WayRow({
  way,
  index,
  count,
  crossover,
  selected,
  adds,
  leadMetres,
}: RowProps) {
  const mark = usePreferences((p) => p.mark);
  const end = driverEnd(way);
  const depth = end.place?.zMetres ?? 0;
  return (
    <li className={styles.way} data-way={index + 1} data-last={index === count - 1 || undefined}>
      <span className={`${styles.wayName} ${styles[`way${index + 1}`]}`}>{way.name}</span>
      <span className={styles.wire} aria-hidden />
      {way.stages.map((stage, i) => (
        <SlotCard
          key={stage.id}
          stage={stage}
          wayName={way.name}
          isFirst={i === 0}
          isLast={i === way.stages.length - 1}
          selected={stage.id === selected}
          adds={adds?.[stage.id]}
        />
      ))}
      {end.amplifier ? (
        <AddActive way={way} index={index} crossover={crossover} leadMetres={leadMetres} />
      ) : (
        <AddSlot way={way} index={index} crossover={crossover} />
      )}
      <span className={`${styles.wire} ${styles.rest}`} aria-hidden />
      <span className={styles.end}>
        {end.amplifier && <OwnAmplifier way={way.id} name={way.name} amplifier={end.amplifier} />}
        <DriverChoice way={way} />
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
