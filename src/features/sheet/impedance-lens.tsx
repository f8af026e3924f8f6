import { useMemo, useState } from 'react';
import type { CurveBand } from '@/core/lenses/bands';
import { jointCurve, SIDES, type JointPicture } from '@/core/lenses/impedance';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { LayerKey } from '@/ui/chart/layers';
import { JointRemedies } from './joint-remedies';
import { MENDABLE_DB, placeName, TIMES } from './joint-words';
import { LensState } from './lens-state';
import { BandKey } from './band-key';
import { LogPicture, logBand, logLine } from './log-picture';
import { useLens } from './use-lens';
import { useLensBands } from './use-lens-bands';
import styles from './real-lenses.module.css';

/** Beyond this a side is open for all that matters here, ohms. */
const OPEN_OHMS = 1e9;
/** A side without resistance is drawn down to here. */
const SHORT_OHMS = 1e-2;
/** What both sides of every joint show each other, over frequency; one joint is drawn. */
export function ImpedanceLens({ sheet }: { sheet: Sheet }) {
  const mark = usePreferences((p) => p.mark);
  const { picture, problem, stale } = useLens(sheet, { lens: 'impedance' });
  const [chosen, setChosen] = useState<string | null>(null);
  const joints = picture ?? NONE;
  const worst = joints.reduce<JointPicture | undefined>(
    (a, b) => (a && a.worst.lossDb <= b.worst.lossDb ? a : b),
    undefined,
  );
  const shown = joints.find((j) => keyOf(j) === chosen) ?? worst;
  // It is mended where it loses most.
  const mendable = useMemo(
    () =>
      shown && shown.worst.lossDb < MENDABLE_DB
        ? { ...shown.judged, ...shown.worst, before: shown.before, after: shown.after }
        : undefined,
    [shown],
  );
  const bands = useLensBands(sheet, 'impedance');
  const layers = useMemo(
    () =>
      shown
        ? [
            ...SIDES.flatMap((side) =>
              logBand(drawableBand(bands[jointCurve(shown, side)]), `spread ${side}`),
            ),
            logLine('load', 'load', 'built', shown.frequenciesHz, drawable(shown.loadOhms)),
            logLine('source', 'source', 'ideal', shown.frequenciesHz, drawable(shown.sourceOhms)),
          ]
        : [],
    [shown, bands],
  );
  const { fromHz, toHz } = sheet.view;
  return (
    <LensState problem={problem} stale={stale}>
      <div className={styles.lens}>
        <p className={styles.head}>
          <span className={styles.key}>
            <LayerKey kind="line" look="ideal" /> what drives the joint
          </span>
          <span className={styles.key}>
            <LayerKey kind="line" look="built" /> what it is loaded with
          </span>
          <BandKey shown={layers.length > 2} />
        </p>
        <LogPicture
          title="Impedance both ways over frequency"
          fromHz={fromHz}
          toHz={toHz}
          layers={layers}
          unit="ohms"
        />
        <div className={styles.side}>
          <table className={styles.table} aria-label="Joints, the heaviest loaded first">
            <thead>
              <tr>
                <th scope="col">Joint</th>
                <th scope="col">drives with</th>
                <th scope="col">loaded with</th>
                <th scope="col">times</th>
                <th scope="col">loses</th>
                <th scope="col">at most</th>
              </tr>
            </thead>
            <tbody>
              {[...joints]
                .sort((a, b) => a.worst.lossDb - b.worst.lossDb)
                .map((joint) => (
                  <Line
                    key={keyOf(joint)}
                    joint={joint}
                    sheet={sheet}
                    mark={mark}
                    chosen={joint === shown}
                    onChoose={() => setChosen(keyOf(joint))}
                  />
                ))}
            </tbody>
          </table>
          {mendable && !stale && <JointRemedies sheet={sheet} joint={mendable} />}
        </div>
      </div>
    </LensState>
  );
}

const NONE: readonly JointPicture[] = [];
const keyOf = ({ before, after }: JointPicture) => `${before} ${after}`;
const drawable = (ohms: Float64Array) =>
  ohms.map((z) => (z > OPEN_OHMS ? NaN : Math.max(z, SHORT_OHMS)));

const drawableBand = (band: CurveBand | undefined) =>
  band && { ...band, low: drawable(band.low), high: drawable(band.high) };

function Line({
  joint,
  sheet,
  mark,
  chosen,
  onChoose,
}: {
  joint: JointPicture;
  sheet: Sheet;
  mark: DecimalMark;
  chosen: boolean;
  onChoose: () => void;
}) {
  const { judged, worst, before, after } = joint;
  const ohms = (z: number) =>
    z > OPEN_OHMS ? 'open' : formatQuantity(z, 'ohms', { digits: 3, unit: true, mark });
  const times = judged.loadOhms / judged.sourceOhms;
  return (
    <tr>
      <th scope="row">
        <button
          type="button"
          className={chosen ? `${styles.choice} ${styles.chosen}` : styles.choice}
          aria-pressed={chosen}
          onClick={onChoose}
        >
          {placeName(sheet, before)} to {placeName(sheet, after)}
        </button>
      </th>
      <td>{ohms(judged.sourceOhms)}</td>
      <td>{ohms(judged.loadOhms)}</td>
      <td className={times < TIMES ? styles.bad : undefined}>
        {times > 9999 ? 'over 9999' : formatQuantity(times, 'ratio', { digits: 3, mark })}
      </td>
      <td>{formatFixed(judged.lossDb, 2, mark)} dB</td>
      <td>
        {formatFixed(worst.lossDb, 2, mark)} dB
        {worst.lossDb < -0.005 &&
          ` at ${formatQuantity(worst.atHz, 'hertz', { digits: 2, unit: true, mark })}`}
      </td>
    </tr>
  );
}
