import { useState } from 'react';
import type { DriveCourse, DrivePicture } from '@/core/lenses/drive';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { LayerKey, type LayerLook, type LineLayer } from '@/ui/chart/layers';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { bounded } from './bounded';
import { LensState } from './lens-state';
import { useLens } from './use-lens';
import styles from './control-lens.module.css';

/** As it stands, then other settings of its resonance. */
const LOOKS: readonly LayerLook[] = ['built', 'input', 'keep'];
/** Below this nothing is told from rounding. */
const LEAST_THD = 1e-4;
const MARKS = [1e-3, 1e-2, 0.1, 1];

/** How far it can be driven, what it makes of a sine, and what it sings by itself. */
export function DriveLens({ sheet }: { sheet: Sheet }) {
  const mark = usePreferences((p) => p.mark);
  const [hz, setHz] = useState<number | null>(null);
  const { picture, problem, stale } = useLens(sheet, { lens: 'drive', hz });
  if (!picture)
    return (
      <LensState problem={problem} stale={stale}>
        {!problem && <p>Driving it harder and harder …</p>}
      </LensState>
    );
  return (
    <LensState problem={problem} stale={stale}>
      <div className={styles.drive} data-figures data-behind={stale || undefined}>
        <div className={styles.head}>
          <span>
            A sine of{' '}
            <EditableQuantity
              label="Frequency of the sine"
              kind="hertz"
              value={picture.hz}
              shown={formatQuantity(picture.hz, 'hertz', { digits: 3, unit: true, mark })}
              mark={mark}
              onCommit={bounded('The frequency', 'hertz', setHz)}
            />{' '}
            {limitWords(picture, sheet, mark)}
          </span>
        </div>
        <div className={styles.keys}>
          {picture.courses.map((course, k) => (
            <span key={k} className={styles.key}>
              <LayerKey kind="line" look={LOOKS[k]} /> {courseName(course, k, mark)}
            </span>
          ))}
        </div>
        <div className={styles.pair}>
          <Distortion picture={picture} />
          <Output picture={picture} />
        </div>
        <SongWords picture={picture} />
      </div>
    </LensState>
  );
}

const courseName = ({ at }: DriveCourse, k: number, mark: DecimalMark): string =>
  at === null || k === 0 ? 'as it stands' : `resonance at ${formatFixed(at * 100, 0, mark)} %`;

function limitWords({ onePart, tenParts }: DrivePicture, sheet: Sheet, mark: DecimalMark) {
  const volts = (v: number) => formatQuantity(v, 'volts', { digits: 3, unit: true, mark });
  if (onePart === null)
    return `stays under 1 % of distortion, or over it, up to ten times the ${volts(sheet.source.volts)} of the source.`;
  return (
    <>
      is bent by 1 % from <b>{volts(onePart)}</b> peak at the source
      {tenParts !== null && (
        <>
          , by 10 % from <b>{volts(tenParts)}</b>
        </>
      )}
      ; the source gives {volts(sheet.source.volts)}.
    </>
  );
}

function Distortion({ picture: { levels, courses } }: { picture: DrivePicture }) {
  const mark = usePreferences((p) => p.mark);
  const percent = (log: number) =>
    `${formatQuantity(100 * 10 ** log, 'ratio', { digits: 2, mark })} %`;
  const layers = courses.map((c, k): LineLayer => ({
    kind: 'line',
    id: `thd ${k}`,
    name: courseName(c, k, mark),
    look: LOOKS[k],
    x: levels,
    y: Array.from(c.thd, (t) => Math.log10(Math.max(t, LEAST_THD))),
  }));
  return (
    <MiniPlot
      title="Distortion over the source’s level"
      summary={summaryOf(
        levels,
        courses[0].thd,
        (t) => percent(Math.log10(Math.max(t, LEAST_THD))),
        mark,
      )}
      layers={layers.reverse()}
      x={[levels[0], levels[levels.length - 1]]}
      y={[Math.log10(LEAST_THD), Math.log10(MARKS[MARKS.length - 1])]}
      logX
      marks={marksOf(levels, mark)}
      xLabel={(v) => formatQuantity(v, 'volts', { digits: 2, unit: true, mark })}
      yLabel={percent}
    />
  );
}

function Output({ picture: { levels, courses } }: { picture: DrivePicture }) {
  const mark = usePreferences((p) => p.mark);
  const volts = (v: number) => formatQuantity(v, 'volts', { digits: 2, unit: true, mark });
  const logs = courses.map((c) => Array.from(c.volts, (v) => Math.log10(v)));
  const known = logs.flat().filter(Number.isFinite);
  const layers = courses.map((c, k): LineLayer => ({
    kind: 'line',
    id: `out ${k}`,
    name: courseName(c, k, mark),
    look: LOOKS[k],
    x: levels,
    y: logs[k],
  }));
  return (
    <MiniPlot
      title="Fundamental at the output"
      summary={summaryOf(levels, courses[0].volts, volts, mark)}
      layers={layers.reverse()}
      x={[levels[0], levels[levels.length - 1]]}
      y={known.length > 0 ? [Math.min(...known) - 0.1, Math.max(...known) + 0.1] : [-1, 1]}
      logX
      marks={marksOf(levels, mark)}
      xLabel={volts}
      yLabel={(log) => volts(10 ** log)}
    />
  );
}

function summaryOf(
  levels: Float64Array,
  values: Float64Array,
  print: (v: number) => string,
  mark: DecimalMark,
): string {
  return [0, 4, 8, 12]
    .map(
      (k) =>
        `${formatQuantity(levels[k], 'volts', { digits: 2, unit: true, mark })}: ${Number.isNaN(values[k]) ? 'none' : print(values[k])}`,
    )
    .join(', ');
}

/** Decades of the level. */
function marksOf(levels: Float64Array, mark: DecimalMark) {
  const [first, last] = [
    Math.ceil(Math.log10(levels[0])),
    Math.floor(Math.log10(levels[levels.length - 1])),
  ];
  return Array.from({ length: last - first + 1 }, (_, k) => {
    const x = 10 ** (first + k);
    return { x, text: formatQuantity(x, 'volts', { digits: 2, unit: true, mark }) };
  });
}

/** What it sings by itself, and its wave. */
function SongWords({ picture: { song, whyNoSong } }: { picture: DrivePicture }) {
  const mark = usePreferences((p) => p.mark);
  if (!song) return <p className={styles.note}>{whyNoSong}</p>;
  const x = Float64Array.from(song.cycle, (_, k) => k / (song.cycle.length - 1) / song.hz);
  const volts = (v: number) => formatQuantity(v, 'volts', { digits: 3, unit: true, mark });
  const parts = Array.from(song.partials.slice(1, 4), (p) =>
    formatFixed(20 * Math.log10(Math.max(p / song.partials[0], 1e-6)), 0, mark),
  );
  return (
    <div className={styles.song}>
      <p>
        {song.at === null
          ? 'As it stands'
          : `With resonance at ${formatFixed(song.at * 100, 0, mark)} %`}{' '}
        it sings by itself:{' '}
        <b>{formatQuantity(song.hz, 'hertz', { digits: 4, unit: true, mark })}</b>,{' '}
        <b>±{volts(song.peakVolts)}</b>; its second, third and fourth partials lie at{' '}
        {parts.join(', ')} dB.
      </p>
      <MiniPlot
        title="Its wave"
        summary={`±${volts(song.peakVolts)}`}
        layers={[{ kind: 'line', id: 'song', name: 'song', look: 'built', x, y: song.cycle }]}
        x={[0, x[x.length - 1]]}
        y={[Math.min(...song.cycle) * 1.1, Math.max(...song.cycle) * 1.1]}
        xLabel={(t) => formatQuantity(t, 'seconds', { digits: 2, unit: true, mark })}
        yLabel={volts}
      />
    </div>
  );
}
