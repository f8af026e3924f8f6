import { useMemo } from 'react';
import type { NoisePicture } from '@/core/lenses/noise';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { LayerKey } from '@/ui/chart/layers';
import { LensState } from './lens-state';
import { BandKey } from './band-key';
import { LogPicture, logBand, logLine } from './log-picture';
import { percent } from './spread-words';
import { useLens } from './use-lens';
import { useLensBands } from './use-lens-bands';
import styles from './real-lenses.module.css';

const PARTS_SHOWN = 12;

/** What hisses at the output, how far under the signal, and which parts make it. */
export function NoiseLens({ sheet }: { sheet: Sheet }) {
  const { picture, problem, stale } = useLens(sheet, { lens: 'noise' });
  return (
    <LensState problem={problem} stale={stale}>
      {picture && <Picture sheet={sheet} noise={picture} />}
    </LensState>
  );
}

function Picture({ sheet, noise }: { sheet: Sheet; noise: NoisePicture }) {
  const mark = usePreferences((p) => p.mark);
  const { frequenciesHz, outputDensity, inputDensity, parts } = noise;
  const bands = useLensBands(sheet, 'noise');
  const layers = useMemo(
    () => [
      ...logBand(bands.output, 'spread output'),
      ...logBand(bands.input, 'spread input'),
      logLine('output', 'at the output', 'built', frequenciesHz, outputDensity),
      logLine('input', 'as if at the source', 'ideal', frequenciesHz, inputDensity),
    ],
    [frequenciesHz, outputDensity, inputDensity, bands],
  );
  const volts = (v: number) => formatQuantity(v, 'volts', { digits: 3, unit: true, mark });
  const { fromHz, toHz } = sheet.view;
  return (
    <div className={styles.lens}>
      <p className={styles.head}>
        <span>
          20 Hz to 20 kHz <b>{volts(noise.rmsVolts)}</b>, A-weighted <b>{volts(noise.rmsVoltsA)}</b>
        </span>
        <span>
          under the signal of {volts(noise.signalVolts)}{' '}
          <b>{formatFixed(noise.rangeDb, 1, mark)} dB</b>, A-weighted{' '}
          <b>{formatFixed(noise.rangeDbA, 1, mark)} dB</b>
        </span>
        <span className={styles.key}>
          <LayerKey kind="line" look="built" /> at the output
        </span>
        <span className={styles.key}>
          <LayerKey kind="line" look="ideal" /> as if at the source
        </span>
        <BandKey shown={bands.output !== undefined} />
      </p>
      <LogPicture
        title="Noise density over frequency"
        fromHz={fromHz}
        toHz={toHz}
        layers={layers}
        unit="volts"
        per="/√Hz"
      />
      <div className={styles.side}>
        <table className={styles.table} aria-label="Who makes the noise, loudest first">
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">adds</th>
              <th scope="col">of the power</th>
            </tr>
          </thead>
          <tbody>
            {parts.slice(0, PARTS_SHOWN).map(({ part, rmsVolts, share }) => (
              <tr key={part}>
                <th scope="row">{part}</th>
                <td>{volts(rmsVolts)}</td>
                <td>{percent(share, mark)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}
