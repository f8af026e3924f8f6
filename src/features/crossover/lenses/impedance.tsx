import { useMemo } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { niceTicks } from '@/ui/chart/axis';
import type { BandLayer } from '@/ui/chart/layers';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, OverBand, WAY_LOOKS } from './over-band';

/** No load is shown higher: what matters is how low it comes. */
const MOST_OHMS = 60;

function Picture({ sheet, crossover, picture }: CrossoverLensProps) {
  const mark = usePreferences((p) => p.mark);
  const { frequenciesHz: x, layers } = picture;
  const shown = useMemo(() => {
    const wanted: BandLayer = {
      kind: 'band',
      id: 'wanted',
      name: 'wanted',
      look: 'wanted',
      x: [20, 20_000],
      low: [0, 0],
      high: [crossover.leastOhms, crossover.leastOhms],
    };
    const lines = layers
      .filter((l) => l.id !== 'nominal')
      .flatMap((l) => {
        const keep = sheet.keeps.find((k) => l.id === `keep:${k.id}`);
        return l.loads.flatMap(({ way, ohms, hardest }) => {
          const index = sheet.ways.findIndex((w) => w.id === way);
          const of = way === undefined ? '' : ` of ${sheet.ways[index]?.name ?? way}`;
          const id = `${l.id} ${way ?? ''}`;
          if (keep) return [line(id, `${keep.name}${of}`, 'keep', x, ohms)];
          const look = way === undefined ? ('built' as const) : WAY_LOOKS[index];
          return [
            line(`${id} hardest`, `the resistor as hard on it${of}`, 'trial-dashed', x, hardest),
            line(id, `the amplifier’s load${of}`, look, x, ohms),
          ];
        });
      });
    return [wanted, ...lines];
  }, [layers, x, sheet.keeps, sheet.ways, crossover.leastOhms]);
  const built = layers.find((l) => l.id === 'built')?.loads ?? [];
  const most = Math.max(12, ...built.flatMap((l) => [...l.ohms]));
  const top = Math.min(MOST_OHMS, most * 1.05);
  return (
    <OverBand
      title="The amplifier’s load over frequency"
      sheet={sheet}
      axis={{ domain: [0, top], ticks: niceTicks(0, top, 6) }}
      unit="Ω"
      layers={shown}
      print={(v) => formatQuantity(v, 'ohms', { unit: true, mark, digits: 3 })}
    />
  );
}

export const impedance: CrossoverLens = {
  id: 'impedance',
  title: 'Impedance',
  about:
    'What the amplifier is loaded with, where it is least, and the resistor that would be as hard on it',
  Picture,
};
