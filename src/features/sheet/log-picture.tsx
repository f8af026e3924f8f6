import { useMemo } from 'react';
import type { QuantityKind } from '@/core/quantity/kinds';
import { formatQuantity } from '@/core/quantity/format';
import {
  valuesOf,
  type BandLayer,
  type ChartLayer,
  type LayerLook,
  type LineLayer,
} from '@/ui/chart/layers';
import type { PlotAxis } from '@/ui/chart/scales';
import type { CurveBand } from '@/core/lenses/bands';
import { bandLayers } from './use-lens-bands';
import { OverFrequency } from './over-frequency';

interface LogPictureProps {
  title: string;
  fromHz: number;
  toHz: number;
  /** Heights are logarithms to base ten, as `logLine` and `logBand` give them. */
  layers: readonly ChartLayer[];
  unit: QuantityKind;
  /** What stands behind the unit. */
  per?: string;
  /** Decades that are shown at the least. */
  least?: number;
}

/** A picture with both axes by ratio. */
export function LogPicture({
  title,
  fromHz,
  toHz,
  layers,
  unit,
  per = '',
  least = 2,
}: LogPictureProps) {
  const y = useMemo<PlotAxis>(() => decades(layers, unit, per, least), [layers, unit, per, least]);
  return <OverFrequency title={title} fromHz={fromHz} toHz={toHz} layers={layers} y={y} />;
}

/** A line over frequency by the logarithms of its values; it breaks where there is none. */
export function logLine(
  id: string,
  name: string,
  look: LayerLook,
  x: Float64Array,
  values: Float64Array,
): LineLayer {
  return { kind: 'line', id, name, look, x, y: logarithms(values) };
}

/** What nine boards in ten stay within, by the logarithms of its ends; nothing where there is none. */
export const logBand = (band: CurveBand | undefined, id?: string): BandLayer[] =>
  bandLayers(band && { ...band, low: logarithms(band.low), high: logarithms(band.high) }, id);

const logarithms = (values: Float64Array): Float64Array =>
  values.map((v) => (v > 0 && Number.isFinite(v) ? Math.log10(v) : NaN));

/** Whole decades about all that is drawn; of many only every second or third has words. */
function decades(
  layers: readonly ChartLayer[],
  unit: QuantityKind,
  per: string,
  least: number,
): PlotAxis {
  const all = valuesOf(layers).flatMap((values) => Array.from(values).filter(Number.isFinite));
  const [bottom, top] = all.length > 0 ? [Math.min(...all), Math.max(...all)] : [0, 1];
  let [low, high] = [Math.floor(bottom - 0.1), Math.ceil(top + 0.1)];
  while (high - low < least) {
    high++;
    if (high - low < least) low--;
  }
  const step = Math.ceil((high - low) / 7);
  const ticks = [];
  for (let decade = Math.ceil(low / step) * step; decade <= high; decade += step)
    ticks.push({
      value: decade,
      text: `${formatQuantity(10 ** decade, unit, { unit: true, digits: 3 })}${per}`,
    });
  return { domain: [low, high], ticks };
}
