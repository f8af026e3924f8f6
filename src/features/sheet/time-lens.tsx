'use client';

import { formatQuantity } from '@/core/quantity/format';
import { layerName } from '@/core/sheet/layer-name';
import type { CurveBand } from '@/core/lenses/bands';
import type { TimePicture } from '@/core/lenses/time';
import type { Layer } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { frequencyLabel } from '@/core/quantity/frequency-ticks';
import type { TimeTrace } from '@/core/lenses/time';
import type { LayerLook, LineLayer } from '@/ui/chart/layers';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { lookOf } from './look-of';
import { LensState } from './lens-state';
import { useLens } from './use-lens';
import { bandLayers, useLensBands } from './use-lens-bands';
import styles from './time-lens.module.css';

const NAMES: Record<TimePicture['id'], string> = {
  pulse: 'Charge and discharge',
  'square-low': 'Square',
  'square-middle': 'Square',
  'square-high': 'Square',
  burst: 'Tone burst',
};

/** How it moves in time: a pulse, squares beside their places on the level curve, a burst. */
export function TimeLens({ sheet, layers }: { sheet: Sheet; layers: readonly Layer[] }) {
  const mark = usePreferences((p) => p.mark);
  const { picture, problem, stale } = useLens(sheet, { lens: 'time' });
  const bands = useLensBands(sheet, 'time');
  if (!picture)
    return (
      <LensState problem={problem} stale={stale}>
        {!problem && <p className={styles.waiting}>Working out the time pictures …</p>}
      </LensState>
    );
  const hz = (value: number) => formatQuantity(value, 'hertz', { unit: true, digits: 3, mark });
  const plot = (p: TimePicture) => (
    <MiniPlot
      key={p.id}
      title={`${NAMES[p.id]}${p.id === 'pulse' ? '' : ` at ${hz(p.atHz)}`}`}
      summary={p.layers.layers
        .map(
          ({ id, value }) =>
            `${layerName(id, sheet)} reaches ${formatQuantity(extreme(value.volts), 'volts', { unit: true, digits: 3 })}`,
        )
        .join(', ')}
      layers={[...bandLayers(bands[p.id]), ...linesOf(p)]}
      x={[0, p.input.seconds[p.input.seconds.length - 1]]}
      y={rangeOf(p, bands[p.id])}
      xLabel={(t) => formatQuantity(t, 'seconds', { unit: true, digits: 3, mark })}
      yLabel={(v) => formatQuantity(v, 'volts', { unit: true, digits: 3, mark })}
    />
  );
  const [pulse, low, middle, high, burst] = picture;
  return (
    <LensState problem={picture.flatMap((p) => p.layers.problems)[0] ?? null} stale={stale}>
      <div className={styles.grid}>
        {plot(pulse)}
        <MiniPlot
          title="Where the squares stand"
          summary={`squares at ${[low, middle, high].map((p) => hz(p.atHz)).join(', ')}`}
          layers={[...layers].reverse().map(({ id, trace }) => ({
            kind: 'line',
            id,
            name: id,
            look: lookOf(id),
            x: trace.frequenciesHz,
            y: trace.levelDb,
          }))}
          x={[sheet.view.fromHz, sheet.view.toHz]}
          y={levelRange(layers)}
          logX
          marks={[low, middle, high].map((p) => ({ x: p.atHz, text: frequencyLabel(p.atHz) }))}
          xLabel={hz}
          yLabel={(v) => `${v < 0 ? '−' : ''}${Math.abs(v)} dB`}
        />
        {[low, middle, high].map(plot)}
        {plot(burst)}
      </div>
    </LensState>
  );
}

/** What goes in behind, then the layers, the thin ideal on top. */
function linesOf({ input, layers }: TimePicture): LineLayer[] {
  const lineOf = (id: string, look: LayerLook, { seconds, volts }: TimeTrace): LineLayer => ({
    kind: 'line',
    id,
    name: id,
    look,
    x: seconds,
    y: volts,
  });
  const drawn = layers.layers.map(({ id, value }) => lineOf(id, lookOf(id), value));
  return [lineOf('input', 'input', input), ...drawn.reverse()];
}

const extreme = (volts: Float64Array) =>
  volts.reduce((most, v) => (Math.abs(v) > Math.abs(most) ? v : most), 0);

function rangeOf({ input, layers }: TimePicture, band?: CurveBand): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  const ends = band ? [band.low, band.high] : [];
  for (const volts of [input.volts, ...layers.layers.map((l) => l.value.volts), ...ends])
    for (const v of volts) {
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
  const room = (high - low) * 0.06 || 1;
  return [low - room, high + room];
}

function levelRange(layers: readonly Layer[]): [number, number] {
  let high = -400;
  for (const { trace } of layers) for (const db of trace.levelDb) high = Math.max(high, db);
  return [high - 45, high + 6];
}
