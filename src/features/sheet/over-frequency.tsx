import type { ChartLayer } from '@/ui/chart/layers';
import { Plot } from '@/ui/chart/plot';
import type { PlotAxis } from '@/ui/chart/scales';
import { useFrequencyAxis } from '@/ui/chart/use-frequency-axis';
import { useSize } from '@/ui/chart/use-size';
import styles from './real-lenses.module.css';

interface OverFrequencyProps {
  title: string;
  fromHz: number;
  toHz: number;
  layers: readonly ChartLayer[];
  y: PlotAxis;
}

/** Lines over frequency, in what room a lens has left for them. */
export function OverFrequency({ title, fromHz, toHz, layers, y }: OverFrequencyProps) {
  const [host, size] = useSize<HTMLDivElement>();
  const x = useFrequencyAxis(fromHz, toHz);
  return (
    <div ref={host} className={styles.picture} role="group" aria-label={title} data-picture>
      {size && size.width > 80 && size.height > 80 && (
        <Plot {...size} x={x} y={y} layers={layers} />
      )}
    </div>
  );
}
