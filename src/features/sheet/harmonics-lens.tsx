'use client';

import { Segmented } from 'antd';
import { useState } from 'react';
import { mainHz } from '@/core/design/ask';
import { layerName } from '@/core/sheet/layer-name';
import { ReedError } from '@/core/errors';
import { boundsProblem } from '@/core/quantity/bounds';
import {
  waveFromHarmonics,
  type HarmonicsPicture,
  type HarmonicWave,
} from '@/core/lenses/harmonics';
import { formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { Slider } from '@/ui/controls/slider';
import type { LineLayer } from '@/ui/chart/layers';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { lookOf } from './look-of';
import { LensState } from './lens-state';
import { useLens } from './use-lens';
import styles from './harmonics-lens.module.css';

const WAVE_POINTS = 400;

/** A square or a saw through the filter, harmonic by harmonic, while its cut-off is moved. */
export function HarmonicsLens({ sheet }: { sheet: Sheet }) {
  const mark = usePreferences((p) => p.mark);
  const [wave, setWave] = useState<HarmonicWave>('saw');
  const [fundamental, setFundamental] = useState<number | null>(null);
  const [octaves, setOctaves] = useState(0);
  const fundamentalHz = fundamental ?? Number((mainHz(sheet.ask) / 5).toPrecision(2));
  const { picture, problem, stale } = useLens(sheet, {
    lens: 'harmonics',
    wave,
    fundamentalHz,
    shift: 2 ** octaves,
  });
  const hz = (value: number) => formatQuantity(value, 'hertz', { unit: true, digits: 3, mark });
  return (
    <div className={styles.lens}>
      <div className={styles.controls}>
        <Segmented<HarmonicWave>
          size="small"
          aria-label="Wave"
          value={wave}
          options={[
            { value: 'saw', label: 'Saw' },
            { value: 'square', label: 'Square' },
          ]}
          onChange={setWave}
        />
        <span>
          at{' '}
          <EditableQuantity
            label="Fundamental"
            value={fundamentalHz}
            kind="hertz"
            mark={mark}
            shown={hz(fundamentalHz)}
            onCommit={(value) => {
              const problem = boundsProblem(value!, 'hertz');
              if (problem) throw new ReedError('range', `The fundamental ${problem}.`);
              setFundamental(value);
            }}
          />
        </span>
        <label className={styles.slider}>
          Cut-off at <span className="mono">{hz(mainHz(sheet.ask) * 2 ** octaves)}</span>
          <Slider
            className={styles.octaves}
            label="Cut-off, octaves away"
            min={-3}
            max={3}
            step={1 / 12}
            value={octaves}
            onChange={setOctaves}
          />
        </label>
      </div>
      <LensState problem={problem ?? picture?.layers.problems[0] ?? null} stale={stale}>
        {picture ? (
          <Pictures sheet={sheet} picture={picture} fundamentalHz={fundamentalHz} />
        ) : (
          !problem && <p>Working out the harmonics …</p>
        )}
      </LensState>
    </div>
  );
}

function Pictures({
  sheet,
  picture,
  fundamentalHz,
}: {
  sheet: Sheet;
  picture: HarmonicsPicture;
  fundamentalHz: number;
}) {
  const mark = usePreferences((p) => p.mark);
  // Decibels under the source's voltage; the wave itself is in volts.
  const db = (x: number) => Math.max(-72, 20 * Math.log10(Math.max(x / picture.volts, 1e-12)));
  const built = picture.layers.layers.find((l) => l.id === 'built') ?? picture.layers.layers[0];
  const angles = Float64Array.from(
    { length: WAVE_POINTS },
    (_, k) => (1.5 * k) / (WAVE_POINTS - 1) / fundamentalHz,
  );
  const waves = picture.layers.layers.map(({ id, value }): LineLayer => ({
    kind: 'line',
    id,
    name: id,
    look: lookOf(id),
    x: angles,
    y: waveFromHarmonics(value.amplitude, value.phase, WAVE_POINTS),
  }));
  const ideal = picture.layers.layers.find((l) => l.id === 'ideal');
  return (
    <div className={styles.pictures}>
      <MiniPlot
        title="Harmonics in (outlined) and out, dB re the source"
        summary={picture.orders
          .slice(0, 6)
          .map((n, k) => `harmonic ${n} ${db(built?.value.amplitude[k] ?? 0).toFixed(1)} dB`)
          .join(', ')}
        layers={[]}
        x={[0.3, picture.orders.length + 0.7]}
        y={[-72, 6]}
        xLabel={(n) => `${n}`}
        yLabel={(v) => `${v < 0 ? '−' : ''}${Math.abs(v)}`}
      >
        {({ x, y }) => {
          const half = (x(2) - x(1)) * 0.3;
          return picture.orders.map((n, k) => (
            <g key={n}>
              {picture.input[k] > 0 && (
                <rect
                  x={x(n) - half - 2}
                  width={2 * half + 4}
                  y={y(db(picture.input[k]))}
                  height={y(-72) - y(db(picture.input[k]))}
                  className={styles.before}
                />
              )}
              {built && (
                <rect
                  x={x(n) - half}
                  width={2 * half}
                  y={y(db(built.value.amplitude[k]))}
                  height={y(-72) - y(db(built.value.amplitude[k]))}
                  className={styles.after}
                />
              )}
              {ideal && picture.input[k] > 0 && db(ideal.value.amplitude[k]) > -72 && (
                <line
                  x1={x(n) - half - 2}
                  x2={x(n) + half + 2}
                  y1={y(db(ideal.value.amplitude[k]))}
                  y2={y(db(ideal.value.amplitude[k]))}
                  className={styles.ideal}
                />
              )}
            </g>
          ));
        }}
      </MiniPlot>
      <MiniPlot
        title={`The wave in and out, source ±${formatQuantity(picture.volts, 'volts', { unit: true, mark })}`}
        summary={picture.layers.layers.map(({ id }) => layerName(id, sheet)).join(', ')}
        layers={[
          {
            kind: 'line',
            id: 'input',
            name: 'input',
            look: 'input',
            x: angles,
            y: waveFromHarmonics(picture.input, undefined, WAVE_POINTS),
          },
          ...waves.reverse(),
        ]}
        x={[0, angles[WAVE_POINTS - 1]]}
        y={[-1.5 * picture.volts, 1.5 * picture.volts]}
        xLabel={(t) => formatQuantity(t, 'seconds', { unit: true, digits: 3, mark })}
        yLabel={(v) => formatQuantity(v, 'volts', { unit: true, digits: 3, mark })}
      />
    </div>
  );
}
