'use client';

import { Plus } from 'lucide-react';
import { lazy, memo, Suspense, useState } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Joint } from '@/core/sheet/joints';
import type { StageKind } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { Coming } from '../shell/coming';
import styles from './path-strip.module.css';

/** A stage is dragged down when its joint loses more than this. */
export const WARN_DB = -0.5;

const JointPanel = lazy(() => import('./joint-panel').then((m) => ({ default: m.JointPanel })));

interface JointMarkProps {
  joint: Joint | undefined;
  /** Stage a new one would follow; null for the start of the path. */
  after: string | null;
  /** Kind of stage that is offered first. */
  first: StageKind;
  /** True before a bypassed stage, where nothing meets. */
  skipped: boolean;
}

/** An impedance beside a joint. */
const ohmsWords = (value: number, mark: DecimalMark) =>
  Number.isFinite(value) ? formatQuantity(value, 'ohms', { mark, digits: 2 }) : 'open';

/** A joint that comes to the same words is not drawn again. */
const printsAlike = (a: JointMarkProps, b: JointMarkProps): boolean =>
  a.after === b.after &&
  a.first === b.first &&
  a.skipped === b.skipped &&
  (a.joint === b.joint || wordsOf(a.joint) === wordsOf(b.joint));

const wordsOf = (joint: Joint | undefined) =>
  joint &&
  [
    ohmsWords(joint.sourceOhms, 'point'),
    ohmsWords(joint.loadOhms, 'point'),
    formatFixed(joint.lossDb, 3),
    joint.atHz,
  ].join(' ');

/** The line between two cards: impedances both ways, what the load takes, and room for another stage. */
export const JointMark = memo(function JointMark({ joint, after, first, skipped }: JointMarkProps) {
  const [open, setOpen] = useState(false);
  const mark = usePreferences((p) => p.mark);
  const ohms = (value: number) => ohmsWords(value, mark);
  const heavy = joint !== undefined && joint.lossDb < WARN_DB;
  return (
    <div className={styles.joint}>
      <span className={`mono ${styles.ohms}`}>
        {joint && !skipped
          ? `${ohms(joint.sourceOhms)} → ${ohms(joint.loadOhms)}${Number.isFinite(joint.loadOhms) ? ' Ω' : ''}`
          : ''}
      </span>
      <div className={styles.wire}>
        <OnDemandPopover
          open={open}
          onOpenChange={setOpen}
          content={
            <Suspense fallback={<Coming />}>
              <JointPanel
                joint={skipped ? undefined : joint}
                after={after}
                first={first}
                ohms={ohms}
              />
            </Suspense>
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
}, printsAlike);
