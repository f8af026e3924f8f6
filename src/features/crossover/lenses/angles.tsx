import { Segmented } from 'antd';
import { useMemo, useState } from 'react';
import type { AnglesPicture } from '@/core/crossover/angles';
import type { Sheet } from '@/core/sheet/schema';
import type { LineLayer } from '@/ui/chart/layers';
import { LensState } from '../../sheet/lens-state';
import { useLens } from '../../sheet/use-lens';
import { FieldPicture } from './field-picture';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, OverBand, soundAxis } from './over-band';
import styles from '../lens-panel.module.css';

type Shown = 'up' | 'side' | 'means' | 'map-up' | 'map-side';
const CHOICES = [
  { value: 'up' as const, label: 'Up and down' },
  { value: 'side' as const, label: 'Sideways' },
  { value: 'map-up' as const, label: 'Map, upright' },
  { value: 'map-side' as const, label: 'Map, level' },
  { value: 'means' as const, label: 'Window and power' },
];
/** How directions are drawn, by their place in the list beside the axis. */
const BESIDE = ['way-1', 'way-2', 'way-3', 'way-4'] as const;

function Picture({ sheet }: CrossoverLensProps) {
  const [shown, show] = useState<Shown>('up');
  const { picture, problem, stale } = useLens(sheet, { lens: 'crossoverAngles' });
  const layers = useMemo(() => (picture ? layersOf(picture, shown) : []), [picture, shown]);
  return (
    <div className={styles.stack}>
      <div className={styles.choice}>
        <Segmented<Shown>
          size="small"
          aria-label="Directions"
          value={shown}
          options={CHOICES}
          onChange={show}
        />
        <span className={styles.model}>
          Each unit a flat piston of its cone’s area in an endless wall; no room.
        </span>
      </div>
      <LensState problem={problem ?? picture?.problem ?? null} stale={stale}>
        <div className={styles.stack}>
          {picture && (shown === 'map-up' || shown === 'map-side') ? (
            <AngleMap sheet={sheet} picture={picture} turn={shown === 'map-up' ? 'up' : 'side'} />
          ) : (
            <OverBand
              title="Level of the sum beside the axis"
              sheet={sheet}
              axis={soundAxis(layers.map((l) => l.y))}
              unit="dB"
              layers={layers}
            />
          )}
        </div>
      </LensState>
    </div>
  );
}

/** Steps of the map, dB against the axis. */
const STEPS = [-24, -21, -18, -15, -12, -9, -6, -3, -1];
const AXIS = { domain: [-60, 60] as const, ticks: [-60, -45, -30, -15, 0, 15, 30, 45, 60] };

/** Level over frequency and angle, against what is heard on axis. */
function AngleMap({
  sheet,
  picture,
  turn,
}: {
  sheet: Sheet;
  picture: AnglesPicture;
  turn: 'up' | 'side';
}) {
  const { degrees } = picture.field;
  const rows = useMemo(() => {
    const ahead = picture.up.find((c) => c.degrees === 0)?.levelDb;
    return ahead ? picture.field[turn].map((row) => row.map((db, k) => db - ahead[k])) : [];
  }, [picture, turn]);
  if (rows.length === 0) return null;
  return (
    <FieldPicture
      title={`Level ${turn === 'up' ? 'above and below' : 'to both sides of'} the axis, against the axis`}
      sheet={sheet}
      says="against the axis: within 1 dB, then 3 dB a tint, none below −24 dB"
      axis={{ ...AXIS, ticks: [...AXIS.ticks] }}
      unit="°"
      x={picture.frequenciesHz}
      y={degrees}
      values={rows}
      steps={STEPS}
      place={(d) =>
        turn === 'up'
          ? `${Math.abs(d)}° ${d < 0 ? 'down' : 'up'}`
          : `${Math.abs(d)}° to ${d < 0 ? 'its left' : 'its right'}`
      }
    />
  );
}

function layersOf(picture: AnglesPicture, shown: Shown): LineLayer[] {
  const { frequenciesHz: x } = picture;
  if (picture.up.length === 0) return [];
  const ahead = picture.up.find((c) => c.degrees === 0)!;
  const axis = line('axis', 'on axis', 'built', x, ahead.levelDb);
  if (shown === 'means')
    return [
      line('window', 'listening window', 'way-2', x, picture.windowDb),
      line('power', 'power into the room', 'way-1', x, picture.powerDb),
      axis,
    ];
  const turn = shown === 'side' ? 'side' : 'up';
  const curves = picture[turn].filter((c) => c.degrees !== 0);
  return [
    ...curves.map((c, i) =>
      line(`${turn} ${c.degrees}`, directionWords(c.degrees, turn), BESIDE[i], x, c.levelDb),
    ),
    axis,
  ];
}

const directionWords = (degrees: number, shown: 'up' | 'side'): string =>
  shown === 'side'
    ? `${degrees}° to the side`
    : `${Math.abs(degrees)}° ${degrees > 0 ? 'up' : 'down'}`;

export const angles: CrossoverLens = {
  id: 'off-axis',
  title: 'Off-axis',
  about: 'What a listener gets above, below and beside the axis, and what fills the room',
  Picture,
};
