import { useMemo } from 'react';
import { niceTicks } from '@/ui/chart/axis';
import { LayerKey } from '@/ui/chart/layers';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { LensState } from '../../sheet/lens-state';
import { useLens } from '../../sheet/use-lens';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, WAY_LOOKS } from './over-band';
import styles from '../lens-panel.module.css';

function Picture({ sheet }: CrossoverLensProps) {
  const { picture, problem, stale } = useLens(sheet, { lens: 'crossoverStep' });
  const layers = useMemo(() => {
    if (!picture || picture.sum.length === 0) return [];
    const { milliseconds: x } = picture;
    return [
      ...picture.ways.map(({ id, values }, i) =>
        line(id, sheet.ways.find((w) => w.id === id)?.name ?? id, WAY_LOOKS[i], x, values),
      ),
      line('sum', 'sum', 'built', x, picture.sum),
    ];
  }, [picture, sheet.ways]);
  const x = picture?.milliseconds ?? [];
  const values = layers.flatMap((l) => Array.from(l.y));
  const [low, high] = [Math.min(-0.2, ...values) - 0.1, Math.max(1, ...values) + 0.1];
  return (
    <LensState problem={problem ?? picture?.problem ?? null} stale={stale}>
      <div className={styles.stack}>
        <ul className={styles.legend} aria-label="Layers">
          {layers.map((l) => (
            <li key={l.id}>
              <LayerKey kind={l.kind} look={l.look} /> {l.name}
            </li>
          ))}
        </ul>
        <div className={styles.picture}>
          {layers.length > 0 && (
            <MiniPlot
              title="What a step at the amplifier brings to the listener"
              summary="sum and each way, in milliseconds from the first possible arrival"
              layers={layers}
              x={[x[0], x[x.length - 1]]}
              y={[low, high]}
              marks={niceTicks(x[0], x[x.length - 1], 8).map((ms) => ({ x: ms, text: `${ms} ms` }))}
              xLabel={(ms) => `${ms.toFixed(2)} ms`}
              yLabel={(v) => v.toFixed(1)}
            />
          )}
        </div>
      </div>
    </LensState>
  );
}

export const step: CrossoverLens = {
  id: 'step',
  title: 'Step',
  about: 'What a step at the amplifier brings: which way comes first, and with which sign',
  Picture,
};
