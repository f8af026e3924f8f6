import { lazy, Suspense, useState } from 'react';
import type { Supply } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { Coming } from '../shell/coming';
import { supplyWords } from '@/core/sheet/supply-words';
import styles from './circuit-panel.module.css';

const SupplyForm = lazy(() => import('./supply-form').then((m) => ({ default: m.SupplyForm })));

/** What feeds the op-amps, beside what they are. */
export function SupplyChoice({ supply }: { supply: Supply | undefined }) {
  const mark = usePreferences((p) => p.mark);
  const [open, setOpen] = useState(false);
  const words = supplyWords(supply, mark);
  return (
    <OnDemandPopover
      open={open}
      onOpenChange={setOpen}
      content={
        <Suspense fallback={<Coming />}>
          <SupplyForm supply={supply} />
        </Suspense>
      }
    >
      <button
        type="button"
        className={styles.opAmp}
        aria-label={`Supply: ${words}`}
        onClick={() => setOpen(true)}
      >
        {words}
      </button>
    </OnDemandPopover>
  );
}
