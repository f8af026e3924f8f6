import type { Circuit } from '@/core/circuit/schema';
import { messageOf, ReedError } from '@/core/errors';
import { layersOf, type LayerId, type LayerSource } from '@/core/sheet/layers';
import { layerName } from '@/core/sheet/layer-name';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';

/** Something computed for every layer of a sheet, with what could not be. */
export interface OverLayers<T> {
  layers: { id: LayerId; value: T }[];
  problems: string[];
}

/**
 * Awaited between slices of long work: whoever runs it lets other messages in, and throws `stopped`
 * when the work is no longer wanted.
 */
export type Pause = () => Promise<void>;
export const withoutPause: Pause = () => Promise.resolve();

/**
 * Run a search to its end, with a pause wherever it stops.
 *
 * @param told each step as it is made
 */
export async function inSlices<Step, T>(
  search: Generator<Step, T>,
  pause: Pause,
  told?: (step: Step) => void,
): Promise<T> {
  for (;;) {
    const { done, value } = search.next();
    if (done) return value;
    told?.(value);
    await pause();
  }
}

/** Compute something for every layer; a layer that fails is named and the others stand. */
export async function overLayers<T>(
  sheet: Sheet,
  pause: Pause,
  compute: (circuit: Circuit, layer: LayerSource) => T,
  way = 0,
): Promise<OverLayers<T>> {
  const layers: OverLayers<T>['layers'] = [];
  const problems: string[] = [];
  for (const layer of layersOf(sheet)) {
    await pause();
    try {
      const circuit = pathCircuit(layer.design, way, layer.version);
      layers.push({ id: layer.id, value: compute(circuit, layer) });
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      problems.push(`${layerName(layer.id, sheet)}: ${messageOf(error)}`);
    }
  }
  return { layers, problems };
}

/** The voltage that a layer's source gives: that of its sine, r.m.s. */
export const sourceVolts = ({ design }: LayerSource): number => design.source.volts;
