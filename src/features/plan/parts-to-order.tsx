import { Button, Input } from 'antd';
import Link from 'next/link';
import { useState } from 'react';
import type { Shortage } from '@/core/plan/shortages';
import { stillToOrder } from '@/core/plan/tasks';
import type { PartsLine } from '@/core/sheet/parts-list';
import { formatFixed } from '@/core/quantity/format';
import { addToDrawer } from '@/store/drawer';
import { markOrdered, usePlan } from '@/store/plan';
import { usePreferences } from '@/store/preferences';
import { dayWords } from '@/ui/controls/date-words';
import { LackingButton } from '../parts-list/lacking-button';
import { FormPopover } from '../shell/form-popover';
import { attempt, attemptStored } from '../shell/tell';
import { partLineWords } from './words';
import styles from './plan.module.css';

/** What the drawer lacks for all that is to be built, and what of it is on the way. */
export function PartsToOrder({ lacking }: { lacking: readonly Shortage[] | null }) {
  const plan = usePlan();
  const mark = usePreferences((p) => p.mark);
  const toOrder = (lacking ?? []).filter((s) => stillToOrder(s, plan) > 0);
  const coming = (lacking ?? []).filter((s) => plan.ordered[s.key] !== undefined);
  const cost = toOrder.reduce((sum, s) => sum + stillToOrder(s, plan) * (s.priceEach ?? 0), 0);
  return (
    <section className={styles.right} aria-label="Parts to order">
      <h2>
        Parts to order
        {toOrder.length > 0 && (
          <span className={styles.soft}>about {formatFixed(cost, 2, mark)}</span>
        )}
      </h2>
      {lacking === null ? (
        <p className={styles.soft}>Counting what is lacking …</p>
      ) : toOrder.length === 0 ? (
        <p className={styles.soft}>
          {coming.length > 0
            ? 'All that is lacking is on the way.'
            : 'The drawer has all that the boards of this plan need.'}{' '}
          <Link href="/drawer">Drawer</Link>
        </p>
      ) : (
        <>
          <span className={styles.buttons}>
            <LackingButton
              lines={toOrder.map((s) => ({ line: s.line, lacking: stillToOrder(s, plan) }))}
            />
            <OrderedButton shortages={toOrder} />
          </span>
          <ul className={styles.parts}>
            {toOrder.map((s) => (
              <li key={s.key}>
                <b className={styles.pieces}>{stillToOrder(s, plan)} ×</b>
                <span>
                  {partLineWords(s.line, mark)}
                  <span className={styles.for}>
                    {s.lackedBy.length === 1
                      ? s.lackedBy[0].title
                      : s.lackedBy.map((l) => `${l.pieces} for ${l.title}`).join(', ')}
                  </span>
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {coming.length > 0 && (
        <>
          <h3>
            On the way
            <Button
              size="small"
              onClick={() =>
                void arrive(coming.map((s) => ({ ...s, pieces: plan.ordered[s.key].pieces })))
              }
            >
              All of it is here
            </Button>
          </h3>
          <ul className={styles.parts}>
            {coming.map((s) => (
              <Coming key={s.key} shortage={s} />
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** Put what has come into the drawer; it is on the way no longer. */
const arrive = (parts: readonly { key: string; line: PartsLine; pieces: number }[]) =>
  attemptStored('They were not put into the drawer', async () => {
    await addToDrawer(
      parts.map(({ line: { kind, value, device, tolerance }, pieces }) => ({
        kind,
        name: device ?? '',
        quantity: pieces,
        note: '',
        ...(value === undefined ? {} : { value }),
        ...(tolerance === undefined ? {} : { tolerance }),
      })),
    );
    for (const { key } of parts) markOrdered(key, null);
  });

/** Parts that were ordered: they come into the drawer, or they do not come. */
function Coming({ shortage: { key, line } }: { shortage: Shortage }) {
  const mark = usePreferences((p) => p.mark);
  const { pieces, until } = usePlan((p) => p.ordered[key]);
  const words = partLineWords(line, mark);
  return (
    <li>
      <b className={styles.pieces}>{pieces} ×</b>
      <span>
        {words}
        {until !== null && <span className={styles.for}>here by {dayWords(until)}</span>}
      </span>
      <span className={styles.buttons}>
        <Button
          size="small"
          aria-label={`${words} are here`}
          onClick={() => void arrive([{ key, line, pieces }])}
        >
          Here
        </Button>
        <Button
          size="small"
          type="text"
          aria-label={`${words} are not on the way`}
          onClick={() => attempt(() => markOrdered(key, null))}
        >
          Not ordered
        </Button>
      </span>
    </li>
  );
}

/** Says that everything on the list was ordered somewhere. */
function OrderedButton({ shortages }: { shortages: readonly Shortage[] }) {
  const [open, setOpen] = useState(false);
  const [until, setUntil] = useState('');
  const store = () => {
    const day = until === '' ? null : until;
    const isStored = attempt(() => {
      for (const { key, pieces } of shortages) markOrdered(key, { pieces, until: day });
    });
    if (isStored) setOpen(false);
  };
  return (
    <FormPopover
      open={open}
      onOpenChange={setOpen}
      content={
        <form
          className={styles.form}
          onSubmit={(event) => {
            event.preventDefault();
            store();
          }}
        >
          <label>
            Here by, if known
            <Input type="date" value={until} onChange={(e) => setUntil(e.target.value)} />
          </label>
          <span className={styles.buttons}>
            <Button type="primary" size="small" htmlType="submit">
              All of it is ordered
            </Button>
          </span>
        </form>
      }
    >
      <Button>Ordered elsewhere …</Button>
    </FormPopover>
  );
}
