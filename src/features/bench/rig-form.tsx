import { Button, Input, InputNumber } from 'antd';
import { useState } from 'react';
import type { RigBoard } from '@/core/bench/rig-board';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { engine } from '@/workers/engine';
import { FormPopover } from '../shell/form-popover';
import type { BroughtTake } from './bench-actions';
import { MeterChoice } from './meter-choice';
import styles from './bench.module.css';

interface RigProps {
  sheet: Sheet;
  onTake: (name: string, take: BroughtTake) => void;
}

/** Measures a simulated board: everything can be tried with no hardware. */
export function RigButton({ sheet, onTake }: RigProps) {
  const [open, setOpen] = useState(false);
  return (
    <FormPopover
      open={open}
      onOpenChange={setOpen}
      content={
        <RigForm
          sheet={sheet}
          onTake={(name, take) => {
            setOpen(false);
            onTake(name, take);
          }}
        />
      }
    >
      <Button type="primary">Measure a simulated board</Button>
    </FormPopover>
  );
}

const FIRST: RigBoard = { seed: 1, fault: '', noiseDb: 0.1 };

function RigForm({ sheet, onTake }: RigProps) {
  const [board, setBoard] = useState(FIRST);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const measure = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const curve = await engine().run('rigTake', { sheet, board });
      const { meter } = board;
      onTake(`rig, board ${board.seed}`, { ...curve, ...(meter ? { meter } : {}) });
    } catch (error) {
      setProblem(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  const change = (part: Partial<RigBoard>) => setBoard((b) => ({ ...b, ...part }));
  return (
    <form
      className={styles.form}
      aria-label="A simulated board"
      onSubmit={(e) => {
        e.preventDefault();
        void measure();
      }}
    >
      <p className={styles.small}>
        A board with values drawn from the sheet’s tolerances, swept over the sheet’s picture at a
        level that nobody tells.
      </p>
      <label>
        Board number
        <InputNumber<number>
          min={0}
          max={999_999}
          precision={0}
          value={board.seed}
          onChange={(seed) => change({ seed: seed ?? 1 })}
        />
      </label>
      <label>
        What is wrong with it
        <Input
          value={board.fault}
          placeholder="nothing, or C2=*1.3"
          maxLength={60}
          onChange={(e) => change({ fault: e.target.value })}
        />
      </label>
      <label>
        Noise, dB
        <InputNumber<number>
          min={0}
          max={5}
          step={0.05}
          value={board.noiseDb}
          onChange={(noiseDb) => change({ noiseDb: noiseDb ?? 0.1 })}
        />
      </label>
      <label>
        Measured with
        <MeterChoice meter={board.meter} onMeter={(meter) => change({ meter })} />
      </label>
      <p className={styles.small}>
        Also C2=47n, R1=R2 (swapped), C2=missing, R3=shorted, A1=100k (its bandwidth).
      </p>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      <Button type="primary" htmlType="submit" loading={busy}>
        Sweep it
      </Button>
    </form>
  );
}
