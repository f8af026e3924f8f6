import { stopIfAsked } from '@/core/errors';
import type { AcAnalysis } from '../ac/ac';
import { percentiles } from './percentiles';

export interface BoardsRequest {
  /** Net whose level is wanted. */
  probe: string;
  frequenciesHz: Float64Array;
  /** How many boards. */
  boards: number;
  /**
   * Write the values of the board of this number into `values` (by parameter; nominal values stand
   * there already).
   */
  draw: (board: number, values: Float64Array) => void;
  /** Rising parts of the boards, 0 to 1, at which the band is wanted: [0.05, 0.5, 0.95]. */
  parts: readonly number[];
  signal?: AbortSignal;
}

/** Levels in dB that the wanted parts of all boards stay below, `[part][frequency]`. */
export type LevelBand = Float64Array[];

const DB_PER_NEPER = 20 / Math.LN10;

/**
 * The band that the level of a net fills over many boards of one circuit. Every board is solved at
 * every frequency; the squares of the magnitudes are kept, and only the wanted parts become decibels.
 *
 * @throws ReedError as `AcAnalysis.solve`
 */
export function levelBand(analysis: AcAnalysis, request: BoardsRequest): LevelBand {
  const { probe, frequenciesHz, boards, draw, parts, signal } = request;
  const nominal = analysis.values.slice();
  const count = frequenciesHz.length;
  // By frequency, then board: each frequency's boards lie side by side for the percentiles.
  const squares = Array.from({ length: count }, () => new Float64Array(boards));
  const trace = { re: new Float64Array(count), im: new Float64Array(count) };
  try {
    for (let board = 0; board < boards; board++) {
      if ((board & 15) === 0) stopIfAsked(signal);
      analysis.values.set(nominal);
      draw(board, analysis.values);
      analysis.update();
      const { re, im } = analysis.voltage(probe, frequenciesHz, trace);
      for (let k = 0; k < count; k++) squares[k][board] = re[k] * re[k] + im[k] * im[k];
    }
  } finally {
    analysis.values.set(nominal);
    analysis.update();
  }
  const band = parts.map(() => new Float64Array(count));
  squares.forEach((own, k) =>
    percentiles(own, parts).forEach(
      (square, p) => (band[p][k] = (DB_PER_NEPER / 2) * Math.log(square)),
    ),
  );
  return band;
}
