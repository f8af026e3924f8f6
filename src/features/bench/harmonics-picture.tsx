import { useMemo } from 'react';
import type { Take } from '@/core/library/take';
import { levelAxis } from '@/ui/chart/axis';
import { KeyedChart } from '@/ui/chart/keyed-chart';
import type { ChartLayer, LayerLook } from '@/ui/chart/layers';

interface HarmonicsProps {
  fromHz: number;
  toHz: number;
  x: ArrayLike<number>;
  harmonics: NonNullable<Take['harmonics']>;
}

/** The first orders are told apart by their looks. */
const LOOKS: readonly LayerLook[] = ['built', 'keep'];
const nameOf = (order: number): string =>
  order === 2 ? 'second harmonic' : order === 3 ? 'third harmonic' : `harmonic ${order}`;

/** Harmonics by order, against the fundamental that made them. */
export function HarmonicsPicture({ fromHz, toHz, x, harmonics }: HarmonicsProps) {
  const layers = useMemo(
    () =>
      harmonics.slice(0, LOOKS.length).map(({ order, levelDb }, i): ChartLayer => {
        const told = levelDb.flatMap((db, k) => (db === null ? [] : [k]));
        return {
          kind: 'line',
          id: `harmonic-${order}`,
          name: nameOf(order),
          look: LOOKS[i],
          x: Float64Array.from(told, (k) => x[k]),
          y: Float64Array.from(told, (k) => levelDb[k]!),
        };
      }),
    [x, harmonics],
  );
  const axis = useMemo(
    () => levelAxis(harmonics.map(({ levelDb }) => levelDb.filter((db) => db !== null))),
    [harmonics],
  );
  return (
    <KeyedChart
      title="Harmonics over the frequency of the fundamental"
      fromHz={fromHz}
      toHz={toHz}
      axis={axis}
      layers={layers}
      size="small"
    >
      <span>against the fundamental, at its frequency</span>
    </KeyedChart>
  );
}
