import { lazy, Suspense, useState } from 'react';
import { usePreferences } from '@/store/preferences';
import { LayerKey } from '@/ui/chart/layers';
import { OnDemandPopover } from '@/ui/controls/on-demand-popover';
import { Coming } from '../shell/coming';
import { percent } from './spread-words';
import { useSpreads } from './spreads';
import styles from './spread.module.css';

const SpreadForm = lazy(() => import('./spread-form').then((m) => ({ default: m.SpreadForm })));

/** The band in the list of layers: of how many boards, how many are as wanted; opens its settings. */
export function SpreadKey() {
  const on = usePreferences((p) => p.spread);
  const mark = usePreferences((p) => p.mark);
  const spread = useSpreads((s) => (s.stale ? null : s.spread));
  const problem = useSpreads((s) => s.problem);
  const [asking, setAsking] = useState(false);
  const met = spread?.yield ?? null;
  const words = !on
    ? 'no spread'
    : problem !== null
      ? 'no spread to be had'
      : `spread${spread ? ` of ${spread.boards.toLocaleString('en')}` : ''}${met === null ? '' : `, ${percent(met, mark)} as wanted`}`;
  return (
    <OnDemandPopover
      open={asking}
      onOpenChange={setAsking}
      content={
        <Suspense fallback={<Coming />}>
          <SpreadForm />
        </Suspense>
      }
    >
      <button
        type="button"
        className={styles.key}
        title="What tolerances make of it: set them here"
        onClick={() => setAsking(true)}
      >
        <LayerKey kind="band" look="spread" /> {words}
      </button>
    </OnDemandPopover>
  );
}
