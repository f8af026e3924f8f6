import type { Part } from '@/core/circuit/schema';
import { readNets, type DrawnNets, type DrawnPart } from '@/core/drawing/nets';
import type { Drawing } from '@/core/drawing/drawing';
import { partKindOf } from '@/core/parts';
import type { PartKind } from '@/core/parts/part-kind';
import { mainQuantity, usualValues } from '@/core/parts/quantities';
import type { Topology, Values } from './topology';

const netsCache = new WeakMap<Drawing, DrawnNets>();

/** The nets of a drawing, read once. */
export function netsOfDrawing(drawing: Drawing): DrawnNets {
  let nets = netsCache.get(drawing);
  if (!nets) netsCache.set(drawing, (nets = readNets(drawing)));
  return nets;
}

export const netsOfTopology = ({ drawing }: Pick<Topology, 'drawing'>): DrawnNets =>
  netsOfDrawing(drawing);

/** What a part is besides its drawing: whatever is not told is as usual for its kind. */
export interface PartData {
  value?: number;
  more?: Readonly<Record<string, number>>;
  model?: unknown;
  lossOhms?: number;
}

export interface Placement {
  /** What each part of the drawing is. */
  dataOf: (part: DrawnPart) => PartData;
  /** Name in the circuit for a part of the drawing. */
  partName: (local: string) => string;
  /** Name in the circuit for a net of the drawing (never asked for ground, or what stands there). */
  netName: (local: string) => string;
}

/**
 * Turn drawn parts into parts of a circuit; its ground is called 0. Inputs beside the main one, which
 * nothing feeds, stand at ground as an empty socket does.
 */
export function instantiate(drawing: Drawing, { dataOf, partName, netName }: Placement): Part[] {
  const { parts, ports } = netsOfDrawing(drawing);
  const unfed = ports.filter((p) => p.flow === 'in' && p.net !== 'in').map((p) => p.net);
  const grounded = new Set(['0', ...unfed]);
  return parts.flatMap((part) => {
    const kind = partKindOf(part.kind);
    const { value, more, model, lossOhms } = dataOf(part);
    const main = mainQuantity(kind);
    return kind.become({
      id: partName(part.id),
      nets: Object.fromEntries(
        Object.entries(part.nets).map(([pin, net]) => [
          pin,
          grounded.has(net) ? '0' : netName(net),
        ]),
      ),
      values: {
        ...usualValues(kind),
        ...more,
        ...(main && value !== undefined ? { [main.name]: value } : {}),
      },
      model: model ?? kind.models?.[0]?.model,
      ...(lossOhms === undefined ? {} : { lossOhms }),
      ground: '0',
    });
  });
}

/** What parts of given values are, with one model for all op-amps. */
export const withValues =
  (values: Values, opAmpModel: unknown) =>
  ({ id, kind }: DrawnPart): PartData =>
    kind === 'op-amp' ? { model: opAmpModel } : { value: values[id] };

export interface ValuedPart {
  id: string;
  kind: PartKind;
}

/** The parts of a drawing that have a value, in drawing order. */
export function valuedParts({ drawing }: { drawing: Drawing }): ValuedPart[] {
  return netsOfDrawing(drawing).parts.flatMap(({ id, kind }) => {
    const known = partKindOf(kind);
    return known.quantities.length > 0 ? [{ id, kind: known }] : [];
  });
}

/** The kind of a drawing's part, by its id; undefined for one without a value, or none at all. */
export function kindOfPart(drawn: { drawing: Drawing }, id: string): PartKind | undefined {
  return valuedParts(drawn).find((p) => p.id === id)?.kind;
}
