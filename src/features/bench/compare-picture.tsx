import { Segmented } from 'antd';
import { useMemo, useState } from 'react';
import type { Foreseen } from '@/core/bench/foreseen';
import type { Comparison } from '@/core/bench/compare';
import { isSamePoint } from '@/core/bench/points';
import type { Take } from '@/core/library/take';
import { formatFixed } from '@/core/quantity/format';
import type { SpreadResult } from '@/core/spread/spread';
import { usePreferences } from '@/store/preferences';
import { differenceAxis, levelAxis, ohmsAxis } from '@/ui/chart/axis';
import { KeyedChart } from '@/ui/chart/keyed-chart';
import type { ChartLayer } from '@/ui/chart/layers';
import { HarmonicsPicture } from './harmonics-picture';
import styles from './bench.module.css';

/** What the picture under the levels shows. */
type Lower = 'difference' | 'harmonics';

interface ComparePictureProps {
  fromHz: number;
  toHz: number;
  take: Pick<Take, 'name' | 'levelDb' | 'meter' | 'harmonics' | 'of'>;
  comparison: Comparison;
  /** Of the sheet as it stands; nothing until it is known. */
  spread: SpreadResult | null;
  /** Of the suspects. */
  chosen: number;
}

/** What was predicted, its spread and the take; below, what the take has more, and what a suspect makes of it. */
export function ComparePicture({
  fromHz,
  toHz,
  take,
  comparison,
  spread,
  chosen,
}: ComparePictureProps) {
  const mark = usePreferences((p) => p.mark);
  const { frequenciesHz: x, predictedDb, differenceDb, explainedDb } = comparison;
  const [lower, setLower] = useState<Lower>('difference');
  const isOhms = take.of?.is === 'impedance';
  // Ohms are what they are; of a level nobody knows at which the source stood.
  const shiftDb = isOhms ? 0 : comparison.findings.gainDb;
  // What boards spread over is known of the output.
  const band = isSamePoint(take.of, undefined) ? spread : null;
  const above = useMemo<ChartLayer[]>(() => {
    const levels = take.levelDb.map((db) => db - shiftDb);
    return [
      ...(band ? [spreadBand(band)] : []),
      {
        kind: 'line',
        id: 'built',
        name: 'predicted',
        look: 'built',
        x,
        y: predictedDb,
      },
      { kind: 'dots', id: 'take', name: take.name, look: 'take', x, y: levels },
    ];
  }, [take, shiftDb, band, x, predictedDb]);
  const below = useMemo<ChartLayer[]>(() => {
    const explained = explainedDb[chosen] as Float64Array | undefined;
    return [
      ...(explained
        ? [
            {
              kind: 'line',
              id: 'suspect',
              name: 'what the chosen suspect makes of it',
              look: 'keep',
              x,
              y: explained,
            } as const,
          ]
        : []),
      {
        kind: 'dots',
        id: 'difference',
        name: 'take less prediction',
        look: 'take',
        x,
        y: differenceDb,
      },
    ];
  }, [x, differenceDb, explainedDb, chosen]);
  const levelsOf = useMemo(
    () => (isOhms ? ohmsAxis : levelAxis)([predictedDb, take.levelDb.map((db) => db - shiftDb)]),
    [predictedDb, take, shiftDb, isOhms],
  );
  const differences = useMemo(() => {
    const explained = explainedDb[chosen] as Float64Array | undefined;
    return differenceAxis(explained ? [differenceDb, explained] : [differenceDb]);
  }, [differenceDb, explainedDb, chosen]);
  return (
    <>
      <KeyedChart
        title={`Predicted and measured ${isOhms ? 'impedance' : 'level'} over frequency`}
        unit={isOhms ? 'Ω' : 'dB'}
        fromHz={fromHz}
        toHz={toHz}
        axis={levelsOf}
        layers={above}
        size="large"
      >
        {!isOhms && (
          <span>
            level shifted by {shiftDb <= 0 && '+'}
            {formatFixed(-shiftDb, 2, mark)} dB
          </span>
        )}
        {take.meter && <span>{take.meter.name}: in the prediction</span>}
      </KeyedChart>
      {take.harmonics && (
        <Segmented<Lower>
          size="small"
          className={styles.lower}
          aria-label="The lower picture"
          value={lower}
          options={['difference', 'harmonics']}
          onChange={setLower}
        />
      )}
      {take.harmonics && lower === 'harmonics' ? (
        <HarmonicsPicture fromHz={fromHz} toHz={toHz} x={x} harmonics={take.harmonics} />
      ) : (
        <KeyedChart
          title="Take less prediction over frequency"
          fromHz={fromHz}
          toHz={toHz}
          axis={differences}
          layers={below}
          size="small"
        />
      )}
    </>
  );
}

const spreadBand = ({ levels }: SpreadResult): ChartLayer => ({
  kind: 'band',
  id: 'spread',
  name: 'nine boards in ten',
  look: 'spread',
  x: levels.hz,
  low: levels.p5,
  high: levels.p95,
});

/** What is predicted before anything is measured, and what most boards stay within. */
export function PredictionPicture({
  fromHz,
  toHz,
  foreseen: { spread, exact },
}: Pick<ComparePictureProps, 'fromHz' | 'toHz'> & { foreseen: Foreseen }) {
  const layers = useMemo<ChartLayer[]>(
    () => [
      spreadBand(spread),
      { kind: 'line', id: 'built', name: 'predicted', look: 'built', x: exact.hz, y: exact.db },
    ],
    [spread, exact],
  );
  const axis = useMemo(() => levelAxis([exact.db]), [exact]);
  return (
    <KeyedChart
      title="Predicted level over frequency"
      fromHz={fromHz}
      toHz={toHz}
      axis={axis}
      layers={layers}
      size="large"
    />
  );
}
