import { Checkbox } from 'antd';
import { useState } from 'react';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { BenchStep, Expected } from '@/core/bench/steps/step';
import { QUANTITIES, type QuantityKind } from '@/core/quantity/kinds';
import type { DecimalMark } from '@/core/quantity/parse';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { changeBoard, readsWith } from './bench-actions';
import { meterFigure } from './meter-figure';
import styles from './bench.module.css';

interface StepListProps {
  steps: readonly BenchStep[];
  board: SheetBoard;
}

/** How a board is built and tried: what is done is ticked, what was read stands beside what should be. */
export function StepList({ steps, board }: StepListProps) {
  const mark = usePreferences((p) => p.mark);
  const [looked, setLooked] = useState<string | null>(null);
  // What comes next is told whole; the rest when it is asked for, and on paper.
  const next = steps.find((s) => !board.done?.includes(s.id))?.id;
  const open = looked ?? next;
  const tick = (id: string, isDone: boolean) =>
    attempt(() =>
      changeBoard(board.id, ({ done = [] }) => ({
        done: isDone ? [...done.filter((d) => d !== id), id] : done.filter((d) => d !== id),
      })),
    );
  const read = (id: string, value: number | null) =>
    attempt(() =>
      changeBoard(board.id, ({ reads, done = [] }) => {
        const all = readsWith(reads, id, value);
        return value === null
          ? { reads: all }
          : { reads: all, done: [...done.filter((d) => d !== id), id] };
      }),
    );
  return (
    <ol className={styles.steps} aria-label="Steps">
      {steps.map(({ id, title, detail, caution, expects }) => {
        const value = board.reads?.[id];
        const isOff = value !== undefined && expects !== undefined && !isWithin(value, expects);
        return (
          <li key={id}>
            <div className={styles.stepHead}>
              <Checkbox
                aria-label={title}
                checked={board.done?.includes(id) ?? false}
                onChange={(e) => {
                  setLooked(null);
                  tick(id, e.target.checked);
                }}
              />
              <button
                type="button"
                className={styles.stepTitle}
                aria-expanded={id === open}
                onClick={() => setLooked(id === open ? '' : id)}
              >
                {title}
              </button>
            </div>
            <div className={styles.stepBody}>
              {expects && (
                <p className={isOff ? styles.off : styles.expects}>
                  expect {expectWords(expects, mark)}, read{' '}
                  <EditableQuantity
                    label={`Read at ${title}`}
                    shown={value === undefined ? '…' : printed(value, expects.quantity, mark)}
                    value={value ?? 0}
                    kind={expects.quantity}
                    mark={mark}
                    width={84}
                    onCommit={(v) => read(id, v)}
                  />
                  {isOff && ' ✗ outside'}
                </p>
              )}
              <p className={id === open ? styles.small : `${styles.small} ${styles.folded}`}>
                {detail}
              </p>
              {caution !== undefined && <p className={styles.caution}>⚠ {caution}</p>}
            </div>
          </li>
        );
      })}
    </ol>
  );
}

const isWithin = (value: number, { least, most }: Expected): boolean =>
  value >= least && value <= most;

/** “9.8 kΩ to 10.2 kΩ”, “over 20 MΩ”, “within ±8 mV”. */
export function expectWords({ quantity, least, most }: Expected, mark: DecimalMark): string {
  const print = (value: number) => printed(value, quantity, mark);
  if (most === Infinity) return `over ${print(least)}`;
  if (Math.abs(least + most) < 1e-3 * (most - least)) return `within ±${print(most)}`;
  return `${print(least)} to ${print(most)}`;
}

/** A figure with its unit, for running text. */
function printed(value: number, quantity: QuantityKind, mark: DecimalMark): string {
  const { symbol, prefixed } = QUANTITIES[quantity];
  const unit = prefixed ? '' : `${symbol === '°' ? '' : '\u00a0'}${symbol}`;
  return `${meterFigure(value, quantity, mark)}${unit}`;
}
