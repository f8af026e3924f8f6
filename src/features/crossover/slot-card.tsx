import { Dropdown } from 'antd';
import { MoreHorizontal } from 'lucide-react';
import { memo, useState } from 'react';
import { formatSigned } from '@/core/quantity/format';
import type { Stage } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { FormPopover } from '../shell/form-popover';
import { attempt } from '../shell/tell';
import { setUi } from '../sheet/ui-state';
import { bypassSlot, moveSlot, removeSlot } from './actions';
import { ActiveForm } from './active-form';
import { SlotForm } from './slot-form';
import { slotName, slotValues } from './slot-words';
import styles from './ways-strip.module.css';

interface Props {
  stage: Stage;
  wayName: string;
  isFirst: boolean;
  isLast: boolean;
  selected: boolean;
  /** What it adds to the level in the middle of its way's band, where that is known. */
  adds?: number;
}

/** One slot of a way: what it is, its values, and what can be done with it. */
export const SlotCard = memo(function SlotCard({
  stage,
  wayName,
  isFirst,
  isLast,
  selected,
  adds,
}: Props) {
  const mark = usePreferences((p) => p.mark);
  const [asking, setAsking] = useState(false);
  const name = slotName(stage, mark);
  const doing: Readonly<Record<string, () => void>> = {
    ask: () => setAsking(true),
    bypass: () => bypassSlot(stage.id),
    left: () => moveSlot(stage.id, -1),
    right: () => moveSlot(stage.id, 1),
    remove: () => removeSlot(stage.id),
  };
  return (
    <>
      <div
        className={[styles.card, selected && styles.selected, stage.bypassed && styles.bypassed]
          .filter(Boolean)
          .join(' ')}
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
            onClick={() => setUi({ stageId: stage.id })}
          >
            <span className="visually-hidden">{wayName}: </span>
            <span>{name}</span>
            <span className={styles.values}>
              {slotValues(stage, mark)}
              {adds !== undefined && ` · ${formatSigned(adds, mark)} dB`}
            </span>
            {stage.bypassed && <span className="visually-hidden">bypassed</span>}
          </button>
        </FormPopover>
        <Dropdown
          trigger={['click']}
          menu={{
            items: [
              {
                key: 'ask',
                label: 'Ask for something else …',
                disabled: !stage.slot && !stage.target,
              },
              { key: 'bypass', label: stage.bypassed ? 'Put back' : 'Bypass' },
              { key: 'left', label: 'Towards the amplifier', disabled: isFirst },
              { key: 'right', label: 'Towards the driver', disabled: isLast },
              { key: 'remove', label: 'Remove' },
            ],
            onClick: ({ key }) => attempt(doing[key]),
          }}
        >
          <button type="button" className={styles.more} aria-label={`More of ${wayName}: ${name}`}>
            <MoreHorizontal size={14} aria-hidden />
          </button>
        </Dropdown>
      </div>
      <span className={styles.wire} aria-hidden />
    </>
  );
});
