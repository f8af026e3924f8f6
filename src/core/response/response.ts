import type { AcAnalysis } from '@/core/analysis/ac/ac';
import type { ComplexTrace } from '@/core/analysis/ac/complex';

/** Anything that answers a list of frequencies with complex values: a solved circuit or a closed form. */
export type Response = (frequenciesHz: Float64Array) => ComplexTrace;

/** The lowest level that is told apart from silence. */
export const SILENCE_DB = -400;

/** Level of a complex value in dB re 1; never below `SILENCE_DB`. */
export function levelDb(re: number, im: number): number {
  // Squares neither vanish nor overflow between silence and 3,000 dB.
  return Math.max(SILENCE_DB, 10 * Math.log10(re * re + im * im));
}

export function levelsDb(trace: ComplexTrace): Float64Array {
  const { re, im } = trace;
  const levels = new Float64Array(re.length);
  for (let k = 0; k < levels.length; k++) levels[k] = levelDb(re[k], im[k]);
  return levels;
}

/** Phase in degrees, -180 to 180. */
export function phaseDegrees(re: number, im: number): number {
  return (Math.atan2(im, re) * 180) / Math.PI;
}

/** The voltage of one net of a circuit, as driven by the sources it contains. */
export function responseOf(analysis: AcAnalysis, net: string): Response {
  return (frequenciesHz) => analysis.voltage(net, frequenciesHz);
}
