import { Button, Checkbox, Select } from 'antd';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Stage } from '@/core/sheet/schema';
import { slotKindOf } from '@/core/slots';
import { ALIGNMENT_WORDS, ALIGNMENTS, hasOrder, ORDERS } from '@/core/slots/section';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { changeSlot } from './actions';
import { fieldsOf } from './slot-fields';
import styles from './ways-strip.module.css';

/** Lift of a pad that is first offered. */
const LIFT = { hz: 10_000, db: 1.5 };

/** What is asked of a slot; its parts follow at once. */
export function SlotForm({ stage, onDone }: { stage: Stage; onDone: () => void }) {
  const mark = usePreferences((p) => p.mark);
  const { slot } = stage;
  if (!slot) return null;
  const ask = (change: object) => changeSlot(stage.id, { ...slot, ...change });
  return (
    <div className={styles.form}>
      <p>{slotKindOf(slot).about}.</p>
      {slot.is === 'section' && (
        <>
          <label>
            Alignment
            <Select
              size="small"
              aria-label="Alignment"
              value={slot.alignment}
              options={ALIGNMENTS.filter((a) => hasOrder(a, slot.order)).map((value) => ({
                value,
                label: ALIGNMENT_WORDS[value],
              }))}
              onChange={(alignment) => attempt(() => ask({ alignment }))}
              popupMatchSelectWidth={false}
            />
          </label>
          <label>
            Order
            <Select
              size="small"
              aria-label="Order"
              value={slot.order}
              options={ORDERS.map((value) => ({ value, label: value }))}
              onChange={(order) =>
                attempt(() =>
                  ask({
                    order,
                    ...(hasOrder(slot.alignment, order) ? {} : { alignment: 'butterworth' }),
                  }),
                )
              }
            />
          </label>
        </>
      )}
      {fieldsOf(slot).map(({ name, label, kind }) => {
        const value = (slot as unknown as Record<string, number>)[name];
        return (
          <label key={name}>
            {label}
            <EditableQuantity
              label={label}
              value={value}
              kind={kind}
              mark={mark}
              shown={
                kind === 'decibels'
                  ? `${formatFixed(value, 1, mark)} dB`
                  : formatQuantity(value, kind, { unit: true, mark, digits: 3 })
              }
              onCommit={(x) => ask({ [name]: x })}
            />
          </label>
        );
      })}
      {slot.is === 'pad' && (
        <>
          <Checkbox
            checked={slot.adjustable}
            onChange={(e) => attempt(() => ask({ adjustable: e.target.checked }))}
          >
            On a shaft, set by ear
          </Checkbox>
          <Checkbox
            checked={slot.lift !== undefined}
            onChange={(e) =>
              attempt(() =>
                ask({
                  lift: e.target.checked
                    ? { ...LIFT, db: Math.min(LIFT.db, slot.downDb / 2) }
                    : undefined,
                }),
              )
            }
          >
            Give the top octave back
          </Checkbox>
          {slot.lift && (
            <>
              <label>
                Above
                <EditableQuantity
                  label="Lift above"
                  value={slot.lift.hz}
                  kind="hertz"
                  mark={mark}
                  shown={formatQuantity(slot.lift.hz, 'hertz', { unit: true, mark, digits: 3 })}
                  onCommit={(hz) => ask({ lift: { ...slot.lift, hz } })}
                />
              </label>
              <label>
                By
                <EditableQuantity
                  label="Lift by"
                  value={slot.lift.db}
                  kind="decibels"
                  mark={mark}
                  shown={`${formatFixed(slot.lift.db, 1, mark)} dB`}
                  onCommit={(db) => ask({ lift: { ...slot.lift, db } })}
                />
              </label>
            </>
          )}
          <p className={styles.caution}>
            These resistors get hot: rate them for the whole power, clear of wires and cabinet wall.
          </p>
        </>
      )}
      <Button size="small" onClick={onDone}>
        Close
      </Button>
    </div>
  );
}
