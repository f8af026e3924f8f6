import { useMemo } from 'react';
import { formatFixed } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import type { LineLayer } from '@/ui/chart/layers';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, OverBand, WAY_LOOKS } from './over-band';

const AXIS = { domain: [-180, 180] as const, ticks: [-180, -135, -90, -45, 0, 45, 90, 135, 180] };

/** Ways fainter than this below the sum are not drawn: nobody hears how they turn. */
const AUDIBLE_DB = 30;

function Picture({ sheet, picture }: CrossoverLensProps) {
  const mark = usePreferences((p) => p.mark);
  const { frequenciesHz: x, layers } = picture;
  const shown = useMemo((): LineLayer[] => {
    const built = layers.find((l) => l.id === 'built');
    if (!built) return [];
    return [
      ...built.ways.map((way, i) => {
        const audible = way.degrees.map((d, k) =>
          way.levelDb[k] > built.sumDb[k] - AUDIBLE_DB ? d : NaN,
        );
        const name = sheet.ways.find((w) => w.id === way.id)?.name ?? way.id;
        return broken(line(way.id, name, WAY_LOOKS[i], x, audible));
      }),
      broken(line('sum', 'sum, built', 'built', x, built.sumDegrees)),
    ];
  }, [sheet.ways, layers, x]);
  return (
    <OverBand
      title="Phase at the listener over frequency"
      sheet={sheet}
      axis={{ ...AXIS, ticks: [...AXIS.ticks] }}
      unit="°"
      layers={shown}
      print={(v) => (Number.isNaN(v) ? '–' : `${formatFixed(v, 0, mark)}°`)}
    />
  );
}

/** A curve that leaves at one end of the turn and enters at the other is broken there. */
function broken(layer: LineLayer): LineLayer {
  const [x, y] = [[] as number[], [] as number[]];
  for (let k = 0; k < layer.x.length; k++) {
    if (k > 0 && Math.abs(layer.y[k] - layer.y[k - 1]) > 180) {
      x.push(layer.x[k]);
      y.push(NaN);
    }
    x.push(layer.x[k]);
    y.push(layer.y[k]);
  }
  return { ...layer, x, y };
}

export const phase: CrossoverLens = {
  id: 'phase',
  title: 'Phase',
  about: 'How the ways turn against each other where they meet, without the delay of the distance',
  Picture,
};
