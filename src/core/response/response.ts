import type { AcAnalysis, ComplexTrace } from '@/core/analysis/ac/ac';

/** Anything that answers a list of frequencies with complex values: a solved circuit or a closed form. */
export type Response = (frequenciesHz: Float64Array) => ComplexTrace;

/** The lowest level that is told apart from silence. */
export const SILENCE_DB = -400;

/** Level of a complex value in dB re 1; never below `SILENCE_DB`. */
export function levelDb(re: number, im: number): number {
  return Math.max(SILENCE_DB, 20 * Math.log10(Math.hypot(re, im)));
}

export function levelsDb(trace: ComplexTrace): Float64Array {
  return trace.re.map((re, k) => levelDb(re, trace.im[k]));
}

/** Phase in degrees, -180 to 180. */
export function phaseDegrees(re: number, im: number): number {
  return (Math.atan2(im, re) * 180) / Math.PI;
}

/** The voltage of one net of a circuit, as driven by the sources it contains. */
export function responseOf(analysis: AcAnalysis, net: string): Response {
  return (frequenciesHz) => analysis.solve({ frequenciesHz, probes: [net] }).probes[net];
}
