import { useSortable } from '@dnd-kit/sortable';
import { Dropdown } from 'antd';
import { MoreHorizontal } from 'lucide-react';
import { memo, useCallback, useState } from 'react';
import { formatSigned } from '@/core/quantity/format';
import type { Stage } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { FormPopover } from '../shell/form-popover';
import { attempt } from '../shell/tell';
import { setUi } from '../sheet/ui-state';
import { bypassSlot, moveSlot, removeSlot } from './actions';
import { ActiveForm } from './active-form';
import { useFigure } from './follow';
import { SlotForm } from './slot-form';
import { slotName, slotValues } from './slot-words';
import styles from './ways-strip.module.css';

interface Props {
  sheetId: string;
  stage: Stage;
  wayName: string;
  /** Which of its way it is. */
  index: number;
  count: number;
  selected: boolean;
}

/** One slot of a way: what it is, its values, and what can be done with it. */
export const SlotCard = memo(function SlotCard(props: Props) {
  const { sheetId, stage, wayName, index, count, selected } = props;
  const mark = usePreferences((p) => p.mark);
  const [asking, setAsking] = useState(false);
  const ask = useCallback(() => setAsking(true), []);
  // Keys open it, as they do any button: it is moved by the keys of its commands.
  const { listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: stage.id,
  });
  const name = slotName(stage, mark);
  const classes = [
    styles.card,
    selected && styles.selected,
    stage.bypassed && styles.bypassed,
    isDragging && styles.dragging,
  ];
  return (
    <>
      <div
        ref={setNodeRef}
        className={classes.filter(Boolean).join(' ')}
        style={{ transform: transform ? `translateX(${transform.x}px)` : undefined, transition }}
      >
        <FormPopover
          open={asking}
          onOpenChange={setAsking}
          content={
            stage.slot ? (
              <SlotForm stage={stage} onDone={() => setAsking(false)} />
            ) : (
              <ActiveForm stage={stage} onDone={() => setAsking(false)} />
            )
          }
        >
          <button
            type="button"
            className={styles.body}
            title={name}
            {...listeners}
            onClick={() => setUi({ stageId: stage.id })}
          >
            <span className="visually-hidden">{wayName}: </span>
            <span>{name}</span>
            <span className={styles.values}>
              {slotValues(stage, mark)}
              <Adds sheetId={sheetId} stageId={stage.id} />
            </span>
            {stage.bypassed && <span className="visually-hidden">bypassed</span>}
          </button>
        </FormPopover>
        <SlotMenu
          id={stage.id}
          label={`More of ${wayName}: ${name}`}
          index={index}
          count={count}
          bypassed={stage.bypassed}
          // A stage that was put in as it is was not asked for by figures.
          onAsk={stage.slot || stage.target ? ask : undefined}
        />
      </div>
      <span className={styles.wire} aria-hidden />
    </>
  );
});

/** What a slot adds to the level in the middle of its way's band, once that is known. */
function Adds({ sheetId, stageId }: { sheetId: string; stageId: string }) {
  const mark = usePreferences((p) => p.mark);
  const adds = useFigure(sheetId, ({ layers }) => {
    const ways = layers.find((l) => l.id === 'built')?.ways;
    const gain = ways?.flatMap((w) => w.slots).find((s) => s.stage === stageId);
    return gain && ` · ${formatSigned(gain.db, mark)} dB`;
  });
  return adds;
}

interface MenuProps {
  id: string;
  label: string;
  index: number;
  count: number;
  bypassed: boolean;
  /** Asks for something else; absent where nothing can be asked. */
  onAsk: (() => void) | undefined;
}

const SlotMenu = memo(function SlotMenu({ id, label, index, count, bypassed, onAsk }: MenuProps) {
  const doing: Readonly<Record<string, () => void>> = {
    ask: () => onAsk?.(),
    bypass: () => bypassSlot(id),
    left: () => moveSlot(id, -1),
    right: () => moveSlot(id, 1),
    remove: () => removeSlot(id),
  };
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'ask', label: 'Ask for something else …', disabled: !onAsk },
          { key: 'bypass', label: bypassed ? 'Put back' : 'Bypass' },
          { key: 'left', label: 'Towards the amplifier', disabled: index === 0 },
          { key: 'right', label: 'Towards the driver', disabled: index === count - 1 },
          { key: 'remove', label: 'Remove' },
        ],
        onClick: ({ key }) => attempt(doing[key]),
      }}
    >
      <button type="button" className={styles.more} aria-label={label}>
        <MoreHorizontal size={14} aria-hidden />
      </button>
    </Dropdown>
  );
});
