import { Button } from 'antd';
import { useState } from 'react';
import type { RigBoard } from '@/core/bench/rig-board';
import { messageOf } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Sheet } from '@/core/sheet/schema';
import { engine } from '@/workers/engine';
import { NotTaken } from './not-taken';
import styles from './sweep.module.css';

interface BridgeProps {
  sheet: Sheet;
  board: RigBoard;
  onTake: (name: string, curve: MeasuredCurve) => void;
}

/** What an ordinary bridge is off by, dB: half a part in a hundred. */
const NOISE_DB = 0.05;

/** The stand-in for an impedance bridge: reads the ohms of a simulated board, point by point. */
export function Bridge({ sheet, board, onTake }: BridgeProps) {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const read = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const curve = await engine().run('bridge', { sheet, board, noiseDb: NOISE_DB });
      onTake(`ohms, board ${board.seed}`, curve);
    } catch (error) {
      setProblem(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <p className={styles.small}>
        A simulated bridge in the place of the source reads the ohms of the whole board, half a part
        in a hundred off. What another bridge read comes in as a table.
      </p>
      <div className={styles.row}>
        <Button type="primary" loading={busy} onClick={() => void read()}>
          Measure it
        </Button>
      </div>
      <NotTaken problem={problem} />
    </>
  );
}
