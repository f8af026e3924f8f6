'use client';

import { Plus } from 'lucide-react';
import { memo, useState, type ReactNode } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Joint } from '@/core/sheet/joints';
import type { StageKind } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { Tex } from '@/ui/controls/tex';
import { attempt } from '../shell/tell';
import { addStage } from './actions';
import { sameProps } from './same-props';
import { StagePicker } from './stage-picker';
import { setUi } from './ui-state';
import styles from './path-strip.module.css';

/** A stage is dragged down when its joint loses more than this. */
const WARN_DB = -0.5;

interface JointMarkProps {
  joint: Joint | undefined;
  /** Stage a new one would follow; null for the start of the path. */
  after: string | null;
  /** Kind of stage that is offered first. */
  first: StageKind;
  /** True before a bypassed stage, where nothing meets. */
  skipped: boolean;
}

/** The line between two cards: impedances both ways, what the load takes, and room for another stage. */
export const JointMark = memo(function JointMark({ joint, after, first, skipped }: JointMarkProps) {
  const [open, setOpen] = useState(false);
  const mark = usePreferences((p) => p.mark);
  const ohms = (value: number) =>
    Number.isFinite(value) ? formatQuantity(value, 'ohms', { mark, digits: 2 }) : 'open';
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
            <JointPanel
              joint={skipped ? undefined : joint}
              after={after}
              first={first}
              ohms={ohms}
            />
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
}, sameProps);

function JointPanel({
  joint,
  after,
  first,
  ohms,
}: {
  joint: Joint | undefined;
  after: string | null;
  first: StageKind;
  ohms: (value: number) => string;
}): ReactNode {
  const mark = usePreferences((p) => p.mark);
  return (
    <div className={styles.panel}>
      {joint && Number.isFinite(joint.loadOhms) && (
        <>
          <Tex
            formula={`20\\log_{10}\\left|\\frac{Z_{load}}{Z_{source}+Z_{load}}\\right| = ${formatFixed(joint.lossDb, 3).replace('−', '-')}\\,\\mathrm{dB}`}
          />
          <p>
            At {formatQuantity(joint.atHz, 'hertz', { unit: true, mark })} the side before shows{' '}
            {ohms(joint.sourceOhms)} Ω and the side after {ohms(joint.loadOhms)} Ω.{' '}
            {joint.lossDb < WARN_DB
              ? 'The stage is dragged down: raise what follows, or put a buffer here.'
              : ''}
          </p>
        </>
      )}
      <p className={styles.panelHead}>Add a stage here</p>
      <StagePicker
        first={first}
        onPick={(t) =>
          attempt(() => setUi({ stageId: addStage(t, after), partId: null, wholePath: false }))
        }
      />
    </div>
  );
}
