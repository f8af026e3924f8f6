import { memo } from 'react';
import type { PlotBox, Scales } from '../scales';
import { KEY, type DrawProps, type FieldLayer, type LayerKind } from './layer';
import styles from './layers.module.css';

/** Tints of the lowest and the highest step. */
const FAINT = 0.08;
const FULL = 0.92;

/** Where the cells of places along an axis meet: half-way, and at the edges of the picture. */
function edgesOf(pixels: readonly number[], from: number, to: number): number[] {
  const between = pixels.slice(1).map((p, k) => (p + pixels[k]) / 2);
  return [from, ...between, to];
}

/** Of each step one path: the cells that lie in it, those beside each other as one. */
export function stepPaths(
  { x, y, values, steps }: FieldLayer,
  scales: Scales,
  box: PlotBox,
): string[] {
  const paths = steps.map(() => '');
  const across = edgesOf(Array.from(x, scales.x), box.x, box.x + box.width);
  const along = Array.from(y, scales.y);
  const rising = along[0] > along[along.length - 1];
  const down = edgesOf(
    along,
    rising ? box.y + box.height : box.y,
    rising ? box.y : box.y + box.height,
  );
  values.forEach((row, r) => {
    const [top, bottom] = [Math.min(down[r], down[r + 1]), Math.max(down[r], down[r + 1])];
    const stepAt = (k: number) => steps.findLastIndex((s) => row[k] >= s);
    for (let from = 0, k = 1; k <= row.length; k++) {
      const step = stepAt(from);
      if (k < row.length && stepAt(k) === step) continue;
      if (step >= 0)
        paths[step] +=
          `M${across[from].toFixed(1)} ${top.toFixed(1)}H${across[k].toFixed(1)}V${bottom.toFixed(1)}H${across[from].toFixed(1)}Z`;
      from = k;
    }
  });
  return paths;
}

const tintOf = (step: number, steps: number): number =>
  FAINT + ((FULL - FAINT) * step) / Math.max(1, steps - 1);

const Draw = memo(function Field({ layer, scales, box }: DrawProps<FieldLayer>) {
  const paths = stepPaths(layer, scales, box);
  return (
    <g data-layer={layer.id} className={styles[layer.look]} shapeRendering="crispEdges">
      {paths.map((d, step) => (
        <path key={layer.steps[step]} d={d} fillOpacity={tintOf(step, paths.length)} />
      ))}
    </g>
  );
});

/** How many tints the list of layers shows. */
const SHOWN = 4;

export const field: LayerKind<FieldLayer> = {
  kind: 'field',
  words: 'tints',
  values: ({ y }) => [y],
  Draw: (props) => <Draw {...props} />,
  Key: ({ look }) => (
    <g className={styles[look]}>
      {Array.from({ length: SHOWN }, (_, n) => (
        <rect
          key={n}
          x={(n * KEY.width) / SHOWN}
          width={KEY.width / SHOWN}
          height={KEY.height}
          fillOpacity={tintOf(n, SHOWN)}
        />
      ))}
    </g>
  ),
};
