'use client';

import type { ReactNode } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { StageKind } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { Tex } from '@/ui/controls/tex';
import { attempt } from '../shell/tell';
import { addStage } from './actions/stages';
import { ohmsWords, WARN_DB } from './joint-words';
import { StagePicker } from './stage-picker';
import { setUi } from './ui-state';
import { useEvaluated } from './use-evaluation';
import styles from './path-strip.module.css';

/** What a joint loses and why, and the stages that could be put there. */
export function JointPanel({
  into,
  after,
  first,
}: {
  /** Stage behind the joint; null where nothing meets. */
  into: string | null;
  after: string | null;
  first: StageKind;
}): ReactNode {
  const mark = usePreferences((p) => p.mark);
  const joint = useEvaluated((e) => e?.joints.find((j) => j.after === into));
  const ohms = (value: number) => ohmsWords(value, mark);
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
