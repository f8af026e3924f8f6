import type { ReactNode } from 'react';
import type { PlotBox, Scales } from '../scales';

/** How a layer looks; form tells layers apart without colour. */
export type LayerLook =
  | 'ideal'
  | 'built'
  | 'keep'
  | 'input'
  | 'trial'
  | 'trial-dashed'
  | 'trial-chained'
  | 'way-1'
  | 'way-2'
  | 'way-3'
  | 'way-4'
  | 'turned'
  | 'wanted'
  | 'spread'
  | 'field'
  | 'take';

interface Named {
  id: string;
  name: string;
  look: LayerLook;
}

/** A curve; it breaks where a value is no number. */
export interface LineLayer extends Named {
  kind: 'line';
  x: ArrayLike<number>;
  y: ArrayLike<number>;
}

/** What lies between two curves; an infinite value reaches the edge of the picture, at no number it breaks. */
export interface BandLayer extends Named {
  kind: 'band';
  x: ArrayLike<number>;
  low: ArrayLike<number>;
  high: ArrayLike<number>;
}

/** Single points. */
export interface DotsLayer extends Named {
  kind: 'dots';
  x: ArrayLike<number>;
  y: ArrayLike<number>;
}

/** Values over both axes, as the deeper a tint the higher they are: by step, and none below the lowest. */
export interface FieldLayer extends Named {
  kind: 'field';
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  /** By place along y, then along x. */
  values: readonly ArrayLike<number>[];
  /** Where one tint gives way to the next, rising. */
  steps: readonly number[];
}

export type ChartLayer = LineLayer | BandLayer | DotsLayer | FieldLayer;

export interface DrawProps<L extends ChartLayer = ChartLayer> {
  layer: L;
  scales: Scales;
  box: PlotBox;
}

/** Everything to be known of one form of layer. One form, one file beside this. */
export interface LayerKind<L extends ChartLayer = ChartLayer> {
  kind: L['kind'];
  /** Said of it to those who do not see it. */
  words: string;
  /** All values that an axis has to find room for. */
  values(layer: L): ArrayLike<number>[];
  /** The layer within the plot. */
  Draw: (props: DrawProps<L>) => ReactNode;
  /** A piece of it for the list of layers, within 28 by 12 pixels. */
  Key: (props: { look: LayerLook }) => ReactNode;
}

/** The size of a layer's piece in the list of layers. */
export const KEY = { width: 28, height: 12 } as const;
