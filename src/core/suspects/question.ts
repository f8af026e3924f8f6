import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Rules } from '@/core/spread/rules';
import type { Noise } from './noise';

/** A take of a circuit, and what is known of both. */
export interface Question {
  circuit: Circuit;
  probe: string;
  take: MeasuredCurve;
  noise: Noise;
  rules: Rules;
  /** Parts that are not of the board. */
  fixed: ReadonlySet<string>;
}

/** What a solution may lose here: a ten-millionth of a decibel. */
const NEGLIGIBLE = 1e-8;

/** A circuit as it is held against a take. */
export const comparable = (circuit: Circuit): AcAnalysis =>
  new AcAnalysis(circuit, undefined, NEGLIGIBLE);
