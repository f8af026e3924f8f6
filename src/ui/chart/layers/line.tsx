import { memo } from 'react';
import { pathOf } from '../scales';
import { KEY, type DrawProps, type LayerKind, type LineLayer } from './layer';
import styles from './layers.module.css';

/** Drawn again only when its own points or the scales change. */
const Draw = memo(
  function Line({ layer, scales, box }: DrawProps<LineLayer>) {
    return (
      <path
        d={pathOf(layer.x, layer.y, scales, box)}
        className={styles[layer.look]}
        fill="none"
        data-layer={layer.id}
      />
    );
  },
  (a, b) =>
    a.layer.x === b.layer.x &&
    a.layer.y === b.layer.y &&
    a.layer.look === b.layer.look &&
    a.scales === b.scales,
);

export const line: LayerKind<LineLayer> = {
  kind: 'line',
  words: 'a curve',
  values: ({ y }) => [y],
  Draw: (props) => <Draw {...props} />,
  Key: ({ look }) => (
    <path d={`M0 ${KEY.height / 2}H${KEY.width}`} className={styles[look]} fill="none" />
  ),
};
