import { waveFromHarmonics, type HarmonicsPicture, type Partials } from '@/core/lenses/harmonics';
import { formatQuantity } from '@/core/quantity/format';
import type { LineLayer } from '@/ui/chart/layers';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { usePreferences } from '@/store/preferences';
import type { LayerId } from '@/core/sheet/layers';
import { lookOf } from './look-of';
import styles from './harmonics-lens.module.css';

const WAVE_POINTS = 400;
const LEAST_DB = -72;

interface SpectrumProps {
  title: string;
  picture: HarmonicsPicture;
  /** What comes out, drawn full. */
  out: Partials | undefined;
  /** What should, as a stroke. */
  ideal?: Partials;
}

/** A wave’s partials before and behind a filter, decibels under the source’s voltage. */
export function Spectrum({ title, picture, out, ideal }: SpectrumProps) {
  const { orders, input, volts } = picture;
  const db = (x: number) => Math.max(LEAST_DB, 20 * Math.log10(Math.max(x / volts, 1e-12)));
  return (
    <MiniPlot
      title={title}
      summary={orders
        .slice(0, 6)
        .map((n, k) => `harmonic ${n} ${db(out?.amplitude[k] ?? 0).toFixed(1)} dB`)
        .join(', ')}
      layers={[]}
      x={[0.3, orders.length + 0.7]}
      y={[LEAST_DB, 6]}
      xLabel={(n) => `${n}`}
      yLabel={(v) => `${v < 0 ? '−' : ''}${Math.abs(v)}`}
    >
      {({ x, y }) => {
        const half = (x(2) - x(1)) * 0.3;
        const bar = (value: number) => ({ y: y(db(value)), height: y(LEAST_DB) - y(db(value)) });
        return orders.map((n, k) => (
          <g key={n}>
            {input[k] > 0 && (
              <rect
                x={x(n) - half - 2}
                width={2 * half + 4}
                {...bar(input[k])}
                className={styles.before}
              />
            )}
            {out && (
              <rect
                x={x(n) - half}
                width={2 * half}
                {...bar(out.amplitude[k])}
                className={styles.after}
              />
            )}
            {ideal && input[k] > 0 && db(ideal.amplitude[k]) > LEAST_DB && (
              <line
                x1={x(n) - half - 2}
                x2={x(n) + half + 2}
                y1={y(db(ideal.amplitude[k]))}
                y2={y(db(ideal.amplitude[k]))}
                className={styles.ideal}
              />
            )}
          </g>
        ));
      }}
    </MiniPlot>
  );
}

interface WavesProps {
  title: string;
  summary: string;
  picture: HarmonicsPicture;
  fundamentalHz: number;
  /** What comes out, by layer, the foremost first. */
  out: readonly { id: LayerId; value: Partials }[];
}

/** The wave before and behind, one period and a half. */
export function Waves({ title, summary, picture, fundamentalHz, out }: WavesProps) {
  const mark = usePreferences((p) => p.mark);
  const x = Float64Array.from(
    { length: WAVE_POINTS },
    (_, k) => (1.5 * k) / (WAVE_POINTS - 1) / fundamentalHz,
  );
  const line = (id: string, look: LineLayer['look'], y: Float64Array): LineLayer => ({
    kind: 'line',
    id,
    name: id,
    look,
    x,
    y,
  });
  const waves = out.map(({ id, value }) =>
    line(id, lookOf(id), waveFromHarmonics(value.amplitude, value.phase, WAVE_POINTS)),
  );
  const input = line('input', 'input', waveFromHarmonics(picture.input, undefined, WAVE_POINTS));
  const most = [input, ...waves].reduce(
    (m, { y }) => Array.from(y).reduce((a, v) => Math.max(a, Math.abs(v)), m),
    0,
  );
  return (
    <MiniPlot
      title={title}
      summary={summary}
      layers={[input, ...waves.reverse()]}
      x={[0, x[WAVE_POINTS - 1]]}
      y={[-1.1 * most, 1.1 * most]}
      xLabel={(t) => formatQuantity(t, 'seconds', { unit: true, digits: 3, mark })}
      yLabel={(v) => formatQuantity(v, 'volts', { unit: true, digits: 3, mark })}
    />
  );
}
