'use client';

import { Plus } from 'lucide-react';
import { lazy, memo, Suspense, useState } from 'react';
import type { StageKind } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { Coming } from '../shell/coming';
import { jointWords } from './joint-words';
import { useEvaluated } from './use-evaluation';
import styles from './path-strip.module.css';

const JointPanel = lazy(() => import('./joint-panel').then((m) => ({ default: m.JointPanel })));

interface JointMarkProps {
  /** Stage behind it; “load” at the end of the path. */
  into: string;
  /** Stage a new one would follow; null for the start of the path. */
  after: string | null;
  /** Kind of stage that is offered first. */
  first: StageKind;
  /** True before a bypassed stage, where nothing meets. */
  skipped: boolean;
}

/** The line between two cards: impedances both ways, what the load takes, and room for another stage. */
export const JointMark = memo(function JointMark({ into, after, first, skipped }: JointMarkProps) {
  const [open, setOpen] = useState(false);
  const mark = usePreferences((p) => p.mark);
  // What it says, not what it is worth to the last digit: that changes with every edit before it.
  const words = useEvaluated((e) => {
    const joint = skipped ? undefined : e?.joints.find((j) => j.after === into);
    return joint ? jointWords(joint, mark) : NOTHING;
  });
  const { ohms, loss, heavy } = words;
  return (
    <div className={styles.joint}>
      <span className={`mono ${styles.ohms}`}>{ohms}</span>
      <div className={styles.wire}>
        <OnDemandPopover
          open={open}
          onOpenChange={setOpen}
          content={
            <Suspense fallback={<Coming />}>
              <JointPanel
                into={skipped ? null : into}
                after={after}
                first={first}
                onDone={() => setOpen(false)}
              />
            </Suspense>
          }
        >
          <button
            type="button"
            className={heavy ? `${styles.node} ${styles.heavy}` : styles.node}
            onClick={() => setOpen(true)}
            aria-label={
              loss === '' ? 'Add a stage here' : `Joint, loses ${loss} dB; add a stage here`
            }
          >
            <Plus size={11} strokeWidth={2.4} aria-hidden />
          </button>
        </OnDemandPopover>
      </div>
      <span className={heavy ? `mono ${styles.warned}` : `mono ${styles.quiet}`}>
        {loss === '' ? '' : `${heavy ? '! ' : ''}${loss} dB`}
      </span>
    </div>
  );
});

const NOTHING = { ohms: '', loss: '', heavy: false };
