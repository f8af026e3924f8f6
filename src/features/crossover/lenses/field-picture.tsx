import { useMemo, useState } from 'react';
import { formatQuantity, formatSigned } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import type { ValueAxis } from '@/ui/chart/axis';
import { LayerKey, type FieldLayer } from '@/ui/chart/layers';
import { LensChart } from '@/ui/chart/lens-chart';
import type { PlotBox, Scales } from '@/ui/chart/scales';
import styles from '../lens-panel.module.css';

interface Props {
  title: string;
  sheet: Sheet;
  /** What the tints say, beside them. */
  says: string;
  axis: ValueAxis;
  unit: string;
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  values: readonly ArrayLike<number>[];
  steps: readonly number[];
  /** A place along the upright axis, in words. */
  place: (y: number) => string;
}

/** Levels over frequency and something else as tints; the one under the pointer is told. */
export function FieldPicture({
  title,
  sheet,
  says,
  axis,
  unit,
  x,
  y,
  values,
  steps,
  place,
}: Props) {
  const mark = usePreferences((p) => p.mark);
  const [at, setAt] = useState<{ column: number; row: number } | null>(null);
  const layers = useMemo(
    (): FieldLayer[] => [
      { kind: 'field', id: 'field', name: says, look: 'field', x, y, values, steps },
    ],
    [says, x, y, values, steps],
  );
  const level = at && values[at.row]?.[at.column];
  return (
    <>
      <p className={styles.legend}>
        <LayerKey kind="field" look="field" /> {says}
        <output className={styles.reading}>
          {at && level !== null && level !== undefined
            ? `${formatQuantity(x[at.column], 'hertz', { unit: true, mark, digits: 3 })}, ${place(y[at.row])}: ${formatSigned(level, mark)} dB`
            : 'Point at a place to read it.'}
        </output>
      </p>
      <div className={styles.picture}>
        <LensChart
          title={title}
          fromHz={sheet.view.fromHz}
          toHz={sheet.view.toHz}
          axis={axis}
          unit={unit}
          layers={layers}
        >
          {(scales, box) => (
            <Pointed
              box={box}
              onPoint={(px, py) =>
                setAt({ column: nearest(x, scales.x, px), row: nearest(y, scales.y, py) })
              }
              onLeave={() => setAt(null)}
            />
          )}
        </LensChart>
      </div>
    </>
  );
}

/** The place whose pixel is nearest. */
function nearest(places: ArrayLike<number>, scale: Scales['x'], px: number): number {
  let best = 0;
  for (let k = 1; k < places.length; k++)
    if (Math.abs(scale(places[k]) - px) < Math.abs(scale(places[best]) - px)) best = k;
  return best;
}

function Pointed({
  box,
  onPoint,
  onLeave,
}: {
  box: PlotBox;
  onPoint: (px: number, py: number) => void;
  onLeave: () => void;
}) {
  return (
    <svg className={styles.pointed} aria-hidden>
      <rect
        {...box}
        fill="transparent"
        onPointerMove={(e) => {
          const host = e.currentTarget.ownerSVGElement!.getBoundingClientRect();
          onPoint(e.clientX - host.left, e.clientY - host.top);
        }}
        onPointerLeave={onLeave}
      />
    </svg>
  );
}
