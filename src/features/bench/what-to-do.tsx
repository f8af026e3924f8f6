import { listed } from '@/core/bench/place-words';
import { Button } from 'antd';
import { useMemo } from 'react';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { Comparison } from '@/core/bench/compare';
import type { Take } from '@/core/library/take';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { quantityOfPart } from './suspect-words';
import { useJob } from './use-job';
import styles from './bench.module.css';

interface WhatToDoProps {
  sheet: Sheet;
  board: SheetBoard;
  take: Take;
  comparison: Comparison;
  /** Of the suspects. */
  chosen: number;
  /** Values that are on the board from now on, by part. */
  onValues: (values: Readonly<Record<string, number>>) => void;
}

/** What is done about a suspect: believed, swapped for the right part, or made up for by another. */
export function WhatToDo({ sheet, board, take, comparison, chosen, onValues }: WhatToDoProps) {
  const mark = usePreferences((p) => p.mark);
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const values = comparison.values[chosen] as Comparison['values'][number] | undefined;
  const [own] = values?.length === 1 ? values : [];
  const culprit = comparison.findings.ranking[chosen]?.parts[0];
  // Only what bears on it: a comparison is of these values and this take.
  const input = useMemo(
    () => (own && culprit ? { sheet, board, take, culprit, drawer } : null),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [comparison, culprit, drawer],
  );
  const { result } = useJob('mendBoard', input);
  if (!own || own.seems === null || own.should === null) return null;
  const { id, seems, should } = own;
  const { names } = comparison;
  const print = (part: string, value: number) =>
    formatQuantity(value, quantityOfPart(part), { digits: 3, mark });
  const [swap] = result?.swaps ?? [];
  return (
    <>
      <h3>What to do</h3>
      <p>
        <Button onClick={() => onValues({ [id]: seems })}>
          Take {print(id, seems)} as measured
        </Button>
      </p>
      <p className={styles.small}>
        Or put {print(id, should)} in its place
        {swap
          ? `: ${swap.quantity} lie in the drawer${swap.place ? `, ${swap.place}` : ''}.`
          : '; none lies in the drawer.'}{' '}
        Power off first, and let capacitors empty.
      </p>
      {result?.trims.map(({ part, value, now, beforeDb, afterDb }) => (
        <p key={part} className={styles.small}>
          Or leave it, and {listed([part], names)} {print(part, value)} for {print(part, now)}: off
          by {formatFixed(afterDb, 2, mark)} dB at most, and not by {formatFixed(beforeDb, 2, mark)}
          .{' '}
          <Button size="small" onClick={() => onValues({ [id]: seems, [part]: value })}>
            Trim it with {listed([part], names)}
          </Button>
        </p>
      ))}
      {result && result.trims.length > 0 && (
        <p className={styles.small}>
          Sweep it again after that: this take is of the board as it was.
        </p>
      )}
    </>
  );
}
