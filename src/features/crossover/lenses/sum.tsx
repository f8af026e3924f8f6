import { useMemo } from 'react';
import type { CrossoverPicture } from '@/core/crossover/picture';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import type { ValueAxis } from '@/ui/chart/axis';
import type { BandLayer, ChartLayer } from '@/ui/chart/layers';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, OverBand, WAY_LOOKS } from './over-band';

/** So much of the level is shown below its top. */
const SHOWN_DB = 42;

function Picture({ sheet, crossover, picture }: CrossoverLensProps) {
  const layers = useMemo(() => layersOf(sheet, crossover, picture), [sheet, crossover, picture]);
  return (
    <OverBand
      title="Level of the sum and its ways over frequency"
      sheet={sheet}
      axis={axisOf(picture)}
      unit="dB"
      layers={layers}
    />
  );
}

function layersOf(
  sheet: Sheet,
  crossover: Crossover,
  { frequenciesHz: x, layers }: CrossoverPicture,
): ChartLayer[] {
  const built = layers.find((l) => l.id === 'built');
  const keeps = layers.flatMap((l) => {
    const keep = sheet.keeps.find((k) => l.id === `keep:${k.id}`);
    return keep ? [line(l.id, keep.name, 'keep', x, l.sumDb)] : [];
  });
  if (!built) return keeps;
  return [
    ...wantedAround(crossover, x, built.sumDb),
    line('turned', 'every second way turned over', 'turned', x, built.turnedDb),
    ...built.ways.map((way, i) =>
      line(
        way.id,
        sheet.ways.find((w) => w.id === way.id)?.name ?? way.id,
        WAY_LOOKS[i],
        x,
        way.levelDb,
      ),
    ),
    ...keeps,
    line('sum', 'sum, built', 'built', x, built.sumDb),
  ];
}

/** What the sum shall keep out of: more than the limits from its own mean over the band. */
function wantedAround(
  { fromHz, toHz, withinDb }: Crossover,
  x: Float64Array,
  sumDb: Float64Array,
): BandLayer[] {
  const inside = sumDb.filter((_, k) => x[k] >= fromHz && x[k] <= toHz);
  if (inside.length === 0) return [];
  const mean = inside.reduce((a, b) => a + b, 0) / inside.length;
  const band = {
    kind: 'band' as const,
    name: 'wanted',
    look: 'wanted' as const,
    x: [fromHz, toHz],
  };
  const [low, high] = [mean - withinDb, mean + withinDb];
  return [
    { ...band, id: 'wanted above', low: [high, high], high: [Infinity, Infinity] },
    { ...band, id: 'wanted below', low: [low - 12, low - 12], high: [low, low] },
  ];
}

function axisOf({ layers }: CrossoverPicture): ValueAxis {
  const top = Math.max(0, ...layers.filter((l) => l.id !== 'nominal').flatMap((l) => [...l.sumDb]));
  const high = Math.ceil((top + 2) / 6) * 6;
  const ticks = Array.from({ length: SHOWN_DB / 6 + 1 }, (_, k) => high - SHOWN_DB + 6 * k);
  return { domain: [high - SHOWN_DB, high], ticks };
}

export const sum: CrossoverLens = {
  id: 'sum',
  title: 'Sum',
  about: 'What the listener gets on axis, and each way of it',
  Picture,
};
