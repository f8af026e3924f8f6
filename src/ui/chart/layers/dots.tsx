import { memo } from 'react';
import type { PlotBox, Scales } from '../scales';
import { KEY, type DotsLayer, type DrawProps, type LayerKind } from './layer';
import styles from './layers.module.css';

const RADIUS = 2.2;
/** Of points that lie closer than this along the axis, one is drawn: pixels. */
const APART = 3;

/** All dots as one path: a take has thousands. */
function dotsOf({ x, y }: DotsLayer, scales: Scales, box: PlotBox): string {
  let d = '';
  let before = -Infinity;
  for (let k = 0; k < x.length; k++) {
    const [px, py] = [scales.x(x[k]), scales.y(y[k])];
    const inside =
      px >= box.x && px <= box.x + box.width && py >= box.y && py <= box.y + box.height;
    if (!inside || px - before < APART) continue;
    before = px;
    d += `M${(px - RADIUS).toFixed(2)} ${py.toFixed(2)}a${RADIUS} ${RADIUS} 0 1 0 ${2 * RADIUS} 0a${RADIUS} ${RADIUS} 0 1 0 ${-2 * RADIUS} 0`;
  }
  return d;
}

const Draw = memo(function Dots({ layer, scales, box }: DrawProps<DotsLayer>) {
  return (
    <path d={dotsOf(layer, scales, box)} className={styles[layer.look]} data-layer={layer.id} />
  );
});

export const dots: LayerKind<DotsLayer> = {
  kind: 'dots',
  words: 'single points',
  values: ({ y }) => [y],
  Draw: (props) => <Draw {...props} />,
  Key: ({ look }) => (
    <g className={styles[look]}>
      {[4, 14, 24].map((x) => (
        <circle key={x} cx={x} cy={KEY.height / 2} r={RADIUS} />
      ))}
    </g>
  ),
};
