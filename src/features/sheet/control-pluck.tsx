import type { Pluck } from '@/core/lenses/pluck';
import { formatQuantity } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { MiniPlot } from '@/ui/chart/mini-plot';

/** What becomes of a pluck of the lamp: quickly up, slowly down. */
export function ControlPluck({ pluck }: { pluck: Pluck }) {
  const mark = usePreferences((p) => p.mark);
  const { seconds, hz, ohms, upSeconds, downSeconds } = pluck;
  const time = (t: number | null) =>
    t === null ? 'never' : formatQuantity(t, 'seconds', { digits: 2, unit: true, mark });
  const logs = Array.from(hz, (f) => Math.log10(f));
  const [low, high] = [Math.min(...logs), Math.max(...logs)];
  const cell = (r: number) => formatQuantity(r, 'ohms', { digits: 3, unit: true, mark });
  return (
    <MiniPlot
      title={`Plucked for 50 ms: half way up in ${time(upSeconds)}, half way down in ${time(downSeconds)}; the cell from ${cell(ohms[0])} to ${cell(Math.min(...ohms))}`}
      summary={`half way up in ${time(upSeconds)}, half way down in ${time(downSeconds)}`}
      layers={[{ kind: 'line', id: 'pluck', name: 'cut-off', look: 'built', x: seconds, y: logs }]}
      x={[0, seconds[seconds.length - 1] * 1.02]}
      y={[low - 0.1, high + 0.1]}
      xLabel={(t) => formatQuantity(t, 'seconds', { digits: 2, unit: true, mark })}
      yLabel={(v) => formatQuantity(10 ** v, 'hertz', { digits: 3, unit: true, mark })}
    />
  );
}
