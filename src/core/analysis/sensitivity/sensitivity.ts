import type { Circuit } from '@/core/circuit/schema';
import { AcAnalysis } from '../ac/ac';
import { Adjoint, type PartSensitivity } from './adjoint';

export interface SensitivityRequest {
  probe: string;
  frequenciesHz: ArrayLike<number>;
  signal?: AbortSignal;
}

/** Sensitivities of level and phase to every part value (see `Adjoint`). */
export function sensitivity(
  circuit: Circuit,
  { probe, frequenciesHz, signal }: SensitivityRequest,
): PartSensitivity[] {
  const adjoint = new Adjoint(new AcAnalysis(circuit, signal), probe, signal);
  return adjoint.parts(Float64Array.from(frequenciesHz));
}

/** Group delay -d phase / d omega at a net, seconds, exact (no differences of phase). */
export function groupDelay(
  circuit: Circuit,
  probe: string,
  frequenciesHz: ArrayLike<number>,
): Float64Array {
  const adjoint = new Adjoint(new AcAnalysis(circuit), probe);
  return adjoint.slopes(Float64Array.from(frequenciesHz)).groupDelaySeconds;
}
