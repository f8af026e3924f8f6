import { Input, InputNumber } from 'antd';
import type { RigBoard } from '@/core/bench/rig-board';
import styles from './sweep.module.css';

/** The board behind the simulated device. */
export function BoardFields({
  board,
  onBoard,
}: {
  board: RigBoard;
  onBoard: (part: Partial<RigBoard>) => void;
}) {
  return (
    <>
      <div className={styles.row}>
        <label>
          Board number
          <InputNumber<number>
            min={0}
            max={999_999}
            precision={0}
            value={board.seed}
            onChange={(seed) => onBoard({ seed: seed ?? 1 })}
          />
        </label>
        <label className={styles.wide}>
          What is wrong with it
          <Input
            value={board.fault}
            placeholder="nothing, or C2=*1.3"
            maxLength={60}
            onChange={(e) => onBoard({ fault: e.target.value })}
          />
        </label>
      </div>
      <p className={styles.small}>
        Values are drawn from the sheet’s tolerances. Also C2=47n, R1=R2 (swapped), C2=missing,
        R3=shorted, A1=100k (its bandwidth).
      </p>
    </>
  );
}

export const Cautions = () => (
  <p className={styles.caution}>
    ⚠ Begin with everything turned down and nothing that makes sound connected: sweeps are loud, and
    hurt ears and tweeters. An input takes a volt or two: never the output of a power amplifier.
    Nothing with mains in it is measured this way.
  </p>
);
