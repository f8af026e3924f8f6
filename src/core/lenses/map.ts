import { polesAndZeros, type PoleResult } from '@/core/analysis/poles/poles';
import type { Sheet } from '@/core/sheet/schema';
import { asDesigned } from '@/core/sheet/stage';
import { overLayers, withoutPause, type OverLayers, type Pause } from './layers';

/** A stage's own pole pair, which can be taken hold of. */
export interface StagePole {
  stageId: string;
  f0Hz: number;
  q: number;
}

export interface MapPicture {
  layers: OverLayers<PoleResult>;
  /** Pole pairs of the targets of second-order stages. */
  held: StagePole[];
}

/** Poles and zeros of every layer, and the pairs that stages are designed for. */
export async function mapLens(sheet: Sheet, pause: Pause = withoutPause): Promise<MapPicture> {
  return {
    layers: await overLayers(sheet, pause, (circuit) => polesAndZeros(circuit, 'out')),
    held: sheet.ways[0].stages.flatMap((s) => {
      const designed = asDesigned(s);
      const { q, f0Hz } = designed?.target ?? {};
      return q !== undefined && f0Hz !== undefined && designed?.topology.limits.q && !s.bypassed
        ? [{ stageId: s.id, f0Hz, q }]
        : [];
    }),
  };
}
