import { useMemo, useState } from 'react';
import type { HeadroomPicture, OpAmpRoom } from '@/core/lenses/headroom';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { LayerKey } from '@/ui/chart/layers';
import { LensState } from './lens-state';
import { BandKey } from './band-key';
import { LogPicture, logBand, logLine } from './log-picture';
import { useLens } from './use-lens';
import { useLensBands } from './use-lens-bands';
import styles from './real-lenses.module.css';

/** What gives out. */
const GIVES_OUT: Record<OpAmpRoom['first']['by'], string> = {
  slew: 'too slow to follow',
  swing: 'at the end of its swing',
  input: 'beyond the range of its inputs',
};

/** A loop nearer than this to turning round rings. */
const CALM_DEGREES = 45;

/** How loud the source may be before anything clips, and how calm each loop is. */
export function HeadroomLens({ sheet }: { sheet: Sheet }) {
  const { picture, problem, stale } = useLens(sheet, { lens: 'headroom' });
  return (
    <LensState problem={problem} stale={stale}>
      {picture && picture.opAmps.length === 0 && (
        <p>No op-amp is in the path: nothing here clips before what drives it does.</p>
      )}
      {picture && picture.opAmps.length > 0 && <Picture sheet={sheet} room={picture} />}
    </LensState>
  );
}

function Picture({ sheet, room }: { sheet: Sheet; room: HeadroomPicture }) {
  const mark = usePreferences((p) => p.mark);
  const [chosen, setChosen] = useState<string | null>(null);
  const { frequenciesHz, opAmps, sourceVolts } = room;
  const [first] = opAmps;
  const shown = opAmps.find((o) => o.part === chosen) ?? first;
  const bands = useLensBands(sheet, 'headroom');
  const band = bands[shown.part];
  const layers = useMemo(
    () => [
      ...logBand(
        band && {
          ...band,
          low: drawable(band.low, shown, sourceVolts),
          high: drawable(band.high, shown, sourceVolts),
        },
      ),
      logLine(
        'most',
        'most',
        'built',
        frequenciesHz,
        drawable(shown.mostVolts, shown, sourceVolts),
      ),
      logLine(
        'source',
        'source',
        'keep',
        frequenciesHz,
        frequenciesHz.map(() => sourceVolts),
      ),
    ],
    [frequenciesHz, shown, sourceVolts, band],
  );
  const { fromHz, toHz } = sheet.view;
  const spare = 20 * Math.log10(first.first.volts / sourceVolts);
  return (
    <div className={styles.lens}>
      <p className={styles.head} role="status">
        <span className={spare < 0 ? styles.bad : undefined}>
          {placed(sheet, first)} gives out first: at <b>{volts(first.first.volts, mark)}</b> in, at{' '}
          <b>{formatQuantity(first.first.atHz, 'hertz', { digits: 3, unit: true, mark })}</b>,{' '}
          {GIVES_OUT[first.first.by]};{' '}
          {spare < 0
            ? `the source gives ${formatFixed(-spare, 1, mark)} dB too much`
            : `${formatFixed(spare, 1, mark)} dB to spare`}
        </span>
        <span className={styles.key}>
          <LayerKey kind="line" look="built" /> most the source may give, for {shown.part}
        </span>
        <span className={styles.key}>
          <LayerKey kind="line" look="keep" /> what it gives
        </span>
        <BandKey shown={band !== undefined} />
      </p>
      <LogPicture
        title="Most source level over frequency"
        fromHz={fromHz}
        toHz={toHz}
        layers={layers}
        unit="volts"
      />
      <div className={styles.side}>
        <table className={styles.table} aria-label="Op-amps, those that give out first on top">
          <thead>
            <tr>
              <th scope="col">Op-amp</th>
              <th scope="col">source at most</th>
              <th scope="col">at</th>
              <th scope="col">swings</th>
              <th scope="col">noise gain</th>
              <th scope="col">loop ends at</th>
              <th scope="col">margin</th>
            </tr>
          </thead>
          <tbody>
            {opAmps.map((own) => (
              <tr key={own.part}>
                <th scope="row">
                  <button
                    type="button"
                    className={own === shown ? `${styles.choice} ${styles.chosen}` : styles.choice}
                    aria-pressed={own === shown}
                    onClick={() => setChosen(own.part)}
                  >
                    {placed(sheet, own)}
                  </button>
                </th>
                <td className={own.first.volts < sourceVolts ? styles.bad : undefined}>
                  {volts(own.first.volts, mark)}
                </td>
                <td>{formatQuantity(own.first.atHz, 'hertz', { digits: 2, unit: true, mark })}</td>
                <td>
                  ±{formatQuantity(own.swingVolts, 'ratio', { digits: 3, mark })} V
                  {own.assumed && ' (usual)'}
                </td>
                <Loop {...own} mark={mark} />
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

/** Where next to nothing arrives any source would do: so far above the least it is drawn no further. */
const ENOUGH = 1000;

const drawable = (volts: Float64Array, { first }: OpAmpRoom, sourceVolts: number) =>
  volts.map((v) => (v > ENOUGH * Math.max(first.volts, sourceVolts) ? NaN : v));

const volts = (v: number, mark: DecimalMark) =>
  formatQuantity(v, 'volts', { digits: 3, unit: true, mark });

/** “Stage 2, A3”. */
function placed(sheet: Sheet, { part, stage }: OpAmpRoom): string {
  const at = sheet.ways[0].stages.findIndex((s) => s.id === stage);
  return at < 0 ? part : `Stage ${at + 1}, ${part}`;
}

function Loop({
  loop,
  needsNoiseGainDb,
  mark,
}: Pick<OpAmpRoom, 'loop' | 'needsNoiseGainDb'> & { mark: DecimalMark }) {
  if (!loop)
    return (
      <>
        <td>–</td>
        <td>–</td>
        <td>–</td>
      </>
    );
  const { crossoverHz, marginDegrees, noiseGainDb } = loop;
  return (
    <>
      <td className={needsNoiseGainDb === undefined ? undefined : styles.bad}>
        {formatFixed(noiseGainDb, 1, mark)} dB
        {needsNoiseGainDb !== undefined && ` of ${formatFixed(needsNoiseGainDb, 0, mark)} needed`}
      </td>
      <td>{formatQuantity(crossoverHz, 'hertz', { digits: 3, unit: true, mark })}</td>
      <td className={marginDegrees < CALM_DEGREES ? styles.bad : undefined}>
        {formatFixed(marginDegrees, 0, mark)}°
      </td>
    </>
  );
}
