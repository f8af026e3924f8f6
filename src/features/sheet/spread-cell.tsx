import { lazy, Suspense, useState } from 'react';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { Coming } from '../shell/coming';
import type { ReadingLine } from './reading-line';
import { printSpan } from './spread-words';
import { useReadingSpread } from './spreads';
import styles from './readings-table.module.css';

const SpreadDetails = lazy(() =>
  import('./spread-details').then((m) => ({ default: m.SpreadDetails })),
);

/** Between what nine boards in ten read. */
export function SpreadCell({ reading, mark, name }: ReadingLine) {
  const { of } = useReadingSpread(reading.id);
  const [asking, setAsking] = useState(false);
  if (!of) return null;
  const span = printSpan(reading.measure, of.p5, of.p95, mark);
  return (
    <OnDemandPopover
      open={asking}
      onOpenChange={setAsking}
      content={
        <Suspense fallback={<Coming />}>
          <SpreadDetails reading={reading} name={name} mark={mark} />
        </Suspense>
      }
    >
      <button
        type="button"
        className={styles.wanted}
        aria-label={`${name}, nine boards in ten: ${span}`}
        onClick={() => setAsking(true)}
      >
        {span}
      </button>
    </OnDemandPopover>
  );
}
