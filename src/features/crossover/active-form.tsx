import { Button } from 'antd';
import type { Stage } from '@/core/sheet/schema';
import { asDesigned, stageName, valuesOf } from '@/core/sheet/stage';
import { TargetFields } from '../sheet/target-fields';
import styles from './ways-strip.module.css';

/** What a stage with op-amps is designed for; its parts follow at once. */
export function ActiveForm({ stage, onDone }: { stage: Stage; onDone: () => void }) {
  const designed = asDesigned(stage);
  return (
    <div className={styles.form}>
      <p>{stageName(stage)}.</p>
      {designed ? (
        <div className={styles.figuresOf}>
          <TargetFields stage={stage} figures={designed.topology.figures(valuesOf(stage))} />
        </div>
      ) : (
        <p>It was drawn otherwise since it was designed: edit its values in the network.</p>
      )}
      <Button size="small" onClick={onDone}>
        Close
      </Button>
    </div>
  );
}
