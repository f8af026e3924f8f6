import { band } from './band';
import { dots } from './dots';
import { field } from './field';
import { KEY, type ChartLayer, type LayerKind, type LayerLook } from './layer';
import { line } from './line';

export type * from './layer';

/** Every form that a layer can have. A new one is a file and a line here, and its type beside them. */
export const LAYER_KINDS: {
  readonly [K in ChartLayer['kind']]: LayerKind<Extract<ChartLayer, { kind: K }>>;
} = {
  line,
  band,
  dots,
  field,
};

/** The kind of a layer: both are of the same type, which cannot be said of a union. */
export const kindOf = (layer: Pick<ChartLayer, 'kind'>): LayerKind =>
  LAYER_KINDS[layer.kind] as unknown as LayerKind;

/** All values that an axis has to find room for. */
export const valuesOf = (layers: readonly ChartLayer[]): ArrayLike<number>[] =>
  layers.flatMap((layer) => kindOf(layer).values(layer));

/** A piece of a layer for a list of layers. */
export function LayerKey({ kind, look }: { kind: ChartLayer['kind']; look: LayerLook }) {
  const { Key, words } = LAYER_KINDS[kind];
  return (
    <svg {...KEY} viewBox={`0 0 ${KEY.width} ${KEY.height}`} role="img" aria-label={words}>
      <Key look={look} />
    </svg>
  );
}
