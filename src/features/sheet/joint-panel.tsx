'use client';

import type { ReactNode } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { StageKind } from '@/core/topologies/topology';
import { usePreferences } from '@/store/preferences';
import { useSheet } from '@/store/sheet-session';
import { Tex } from '@/ui/controls/tex';
import { attempt } from '../shell/tell';
import { addBias } from './actions/bias';
import { addCell, addStage } from './actions/stages';
import { JointRemedies } from './joint-remedies';
import { MENDABLE_DB, ohmsWords, tenTimesWords } from './joint-words';
import { StagePicker } from './stage-picker';
import { setUi } from './ui-state';
import { useEvaluated } from './use-evaluation';
import styles from './path-strip.module.css';

/** What a joint loses and why, and the stages that could be put there. */
export function JointPanel({
  into,
  after,
  first,
  onDone,
}: {
  /** Stage behind the joint; null where nothing meets. */
  into: string | null;
  after: string | null;
  first: StageKind;
  /** Told when something was done about the joint. */
  onDone: () => void;
}): ReactNode {
  const sheet = useSheet();
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
            {tenTimesWords(joint, mark)}
          </p>
          {sheet && joint.lossDb < MENDABLE_DB && (
            <JointRemedies sheet={sheet} joint={joint} onDone={onDone} />
          )}
        </>
      )}
      <p className={styles.panelHead}>Add a stage here</p>
      <StagePicker
        first={first}
        onPick={(t) =>
          attempt(() => setUi({ stageId: addStage(t, after), partId: null, wholePath: false }))
        }
        onPickBias={(made) =>
          attempt(() => setUi({ stageId: addBias(made, after), partId: null, wholePath: false }))
        }
        onPickCell={(c) =>
          attempt(() => setUi({ stageId: addCell(c, after), partId: null, wholePath: false }))
        }
      />
    </div>
  );
}
