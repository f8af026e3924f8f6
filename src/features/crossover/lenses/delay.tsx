import { useMemo } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { niceTicks } from '@/ui/chart/axis';
import { LensState } from '../../sheet/lens-state';
import { useLens } from '../../sheet/use-lens';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, OverBand, WAY_LOOKS } from './over-band';
import styles from '../lens-panel.module.css';

function Picture({ sheet, crossover, picture: levels }: CrossoverLensProps) {
  const mark = usePreferences((p) => p.mark);
  const { picture, problem, stale } = useLens(sheet, { lens: 'crossoverDelay' });
  const built = levels.layers.find((l) => l.id === 'built');
  const layers = useMemo(() => {
    if (!picture || picture.sumSeconds.length === 0) return [];
    const { frequenciesHz: x } = picture;
    const milli = (seconds: Float64Array) => seconds.map((s) => 1000 * s);
    return [
      ...picture.ways.map(({ id, seconds }, i) =>
        line(id, sheet.ways.find((w) => w.id === id)?.name ?? id, WAY_LOOKS[i], x, milli(seconds)),
      ),
      line('sum', 'sum', 'built', x, milli(picture.sumSeconds)),
    ];
  }, [picture, sheet.ways]);
  // What is far below the band is slow by nature: the axis is that of what is listened for.
  const sum = layers.at(-1);
  const inside = sum
    ? Array.from(sum.y).filter((_, k) => sum.x[k] >= crossover.fromHz && sum.x[k] <= crossover.toHz)
    : [];
  const [low, high] = [Math.min(0, ...inside), Math.max(0.5, ...inside)];
  const top = high + 0.3 * (high - low);
  const bottom = low - 0.1 * (high - low);
  return (
    <LensState problem={problem ?? picture?.problem ?? null} stale={stale}>
      <div className={styles.stack}>
        {built && layers.length > 0 && (
          <OverBand
            title="Group delay at the listener over frequency"
            sheet={sheet}
            axis={{ domain: [bottom, top], ticks: niceTicks(bottom, top, 7) }}
            unit="ms"
            layers={layers}
            print={(v) => formatQuantity(v / 1000, 'seconds', { unit: true, mark, digits: 3 })}
          />
        )}
      </div>
    </LensState>
  );
}

export const delay: CrossoverLens = {
  id: 'group-delay',
  title: 'Delay',
  about: 'Group delay of the sum and of each way, without the time through the air',
  Picture,
};
