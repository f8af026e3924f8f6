import type { Recording } from '@/core/sweep/swept';

export interface PlayOptions {
  /** The board, or a wire in its place. */
  through: 'board' | 'wire';
  /** How often. */
  times: number;
  signal: AbortSignal;
  /** The highest point that came back lately, as a part of full scale. */
  onPeak: (peak: number) => void;
}

/** Something that plays samples and records what comes back. */
export interface AudioRig {
  /** Samples a second. */
  rate: number;
  /**
   * @param samples full scale is 1
   * @throws Error with words for a person where it cannot be, and when the signal stops it
   */
  play(samples: Float64Array, options: PlayOptions): Promise<Recording[]>;
  close(): void;
}

/** Plays were stopped by whoever asked for them. */
export class Stopped extends Error {}
