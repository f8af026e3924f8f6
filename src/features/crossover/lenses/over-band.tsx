import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { valueAt, type ValueAxis } from '@/ui/chart/axis';
import { Cursor, type CursorRow } from '@/ui/chart/cursor';
import { LayerKey, type ChartLayer, type LineLayer } from '@/ui/chart/layers';
import { LensChart } from '@/ui/chart/lens-chart';
import { setUi, useUi } from '../../sheet/ui-state';
import { useSteady } from '../../sheet/use-alike';
import styles from '../lens-panel.module.css';

interface Props {
  title: string;
  sheet: Sheet;
  axis: ValueAxis;
  unit: string;
  layers: readonly ChartLayer[];
  /** How a value under the cursor reads; decibels where nothing is said. */
  print?: (value: number) => string;
  /** What Enter, or a double click, does at the cursor; it stays there where nothing is said. */
  onPin?: (hz: number) => void;
}

/** A picture of a crossover over frequency: what is on it, the picture, and a cursor that reads all lines. */
export function OverBand({ title, sheet, axis, unit, layers, print, onPin }: Props) {
  const mark = usePreferences((p) => p.mark);
  const cursorHz = useUi((s) => s.cursorHz);
  const { fromHz, toHz } = sheet.view;
  const steady = useSteady(axis);
  const lines = layers.filter((l): l is LineLayer => l.kind === 'line');
  const rows: CursorRow[] =
    cursorHz === null
      ? []
      : lines.map(({ name, look, x, y }) => {
          const value = valueAt(x, y, cursorHz);
          return { name, look, levelDb: value, ...(print ? { own: print(value) } : {}) };
        });
  return (
    <>
      <ul className={styles.legend} aria-label="Layers">
        {layers
          .filter((l, i) => layers.findIndex((o) => o.name === l.name) === i)
          .map((l) => (
            <li key={l.id}>
              <LayerKey kind={l.kind} look={l.look} /> {l.name}
            </li>
          ))}
      </ul>
      <div className={styles.picture} onPointerLeave={() => setUi({ cursorHz: null })}>
        <LensChart
          title={title}
          fromHz={fromHz}
          toHz={toHz}
          axis={steady}
          unit={unit}
          layers={layers}
        >
          {(scales, box) => (
            <Cursor
              scales={scales}
              box={box}
              fromHz={fromHz}
              toHz={toHz}
              atHz={cursorHz}
              mark={mark}
              rows={rows}
              onMove={(hz) => setUi({ cursorHz: hz })}
              onPin={onPin ?? ((hz) => setUi({ cursorHz: hz }))}
            />
          )}
        </LensChart>
      </div>
    </>
  );
}

/** How the ways are drawn, the lowest first. */
export const WAY_LOOKS = ['way-1', 'way-2', 'way-3', 'way-4'] as const;

export const line = (
  id: string,
  name: string,
  look: LineLayer['look'],
  x: ArrayLike<number>,
  y: ArrayLike<number>,
): LineLayer => ({ kind: 'line', id, name, look, x, y });

/** So much of a level is shown below its top. */
const SHOWN_DB = 42;

/** An axis for levels of sound: six decibels a line, from a little above the loudest. */
export function soundAxis(levels: readonly ArrayLike<number>[]): ValueAxis {
  let top = 0;
  for (const level of levels)
    for (let k = 0; k < level.length; k++) if (level[k] > top) top = level[k];
  const high = Math.ceil((top + 2) / 6) * 6;
  const ticks = Array.from({ length: SHOWN_DB / 6 + 1 }, (_, k) => high - SHOWN_DB + 6 * k);
  return { domain: [high - SHOWN_DB, high], ticks };
}

/** The mean of a level over the band that a crossover is asked for; none where nothing of it is shown. */
export function meanInBand(
  x: Float64Array,
  db: Float64Array,
  { fromHz, toHz }: Pick<Crossover, 'fromHz' | 'toHz'>,
): number | undefined {
  const inside = db.filter((_, k) => x[k] >= fromHz && x[k] <= toHz);
  return inside.length === 0 ? undefined : inside.reduce((a, b) => a + b, 0) / inside.length;
}
