import { memo, useId } from 'react';
import { heightOf, type PlotBox, type Scales } from '../scales';
import { KEY, type BandLayer, type DrawProps, type LayerKind, type LayerLook } from './layer';
import styles from './layers.module.css';

/** There along the upper ends, back along the lower ones, over each stretch that has both. */
function outlineOf({ x, low, high }: BandLayer, scales: Scales, box: PlotBox): string {
  const along = Array.from(x, (value) =>
    Math.min(box.x + box.width, Math.max(box.x, scales.x(value))),
  );
  const point = (k: number, value: number) =>
    `${along[k].toFixed(2)} ${heightOf(value, scales, box).toFixed(2)}`;
  let outline = '';
  for (let from = 0, k = 0; k <= along.length; k++) {
    if (k < along.length && !Number.isNaN(low[k]) && !Number.isNaN(high[k])) continue;
    const stretch = Array.from({ length: k - from }, (_, i) => from + i);
    const there = stretch.map((i) => point(i, high[i]));
    const back = stretch.map((i) => point(i, low[i])).reverse();
    if (stretch.length > 1) outline += `M${[...there, ...back].join('L')}Z`;
    from = k + 1;
  }
  return outline;
}

const fillOf = (look: LayerLook, hatch: string) =>
  look === 'wanted' ? `url(#${hatch})` : undefined;

/** Strokes across, for what is wanted. */
function Hatch({ id }: { id: string }) {
  return (
    <pattern
      id={id}
      width="8"
      height="8"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <line x1="0" y1="0" x2="0" y2="8" className={styles.hatch} />
    </pattern>
  );
}

const Draw = memo(function Band({ layer, scales, box }: DrawProps<BandLayer>) {
  const hatch = useId();
  return (
    <g data-layer={layer.id}>
      <Hatch id={hatch} />
      <path
        d={outlineOf(layer, scales, box)}
        className={styles[layer.look]}
        fill={fillOf(layer.look, hatch)}
      />
    </g>
  );
});

function Key({ look }: { look: LayerLook }) {
  const hatch = useId();
  return (
    <>
      <Hatch id={hatch} />
      <rect
        x="0.5"
        y="0.5"
        width={KEY.width - 1}
        height={KEY.height - 1}
        className={styles[look]}
        fill={fillOf(look, hatch)}
      />
    </>
  );
}

export const band: LayerKind<BandLayer> = {
  kind: 'band',
  words: 'a region',
  // What reaches the edge asks for no room, and neither does what is to be kept out of.
  values: ({ look, low, high }) => (look === 'wanted' ? [] : [low, high]),
  Draw: (props) => <Draw {...props} />,
  Key,
};
