import type { Sheet } from '@/core/sheet/schema';

/** Samples between two looks at the controls: 1.3 ms at 48 kHz. */
export const SLICE = 64;

/** What goes on from what came before, and can go back. */
export interface Rewinds {
  /** @returns what brings it back to where it is now, with the settings it has by then */
  mark(): () => void;
}

/** What a program is played through. */
export interface Heard extends Rewinds {
  /** Steps to a sample. */
  readonly times: number;
  /** Samples that it is heard late by. */
  readonly late: number;
  /** Steps that could not be settled. */
  readonly lost: number;
  /** Octaves or volts over the whole travel of the control that notes open, where it says so. */
  readonly span: number | undefined;
  /** Another of the same kind, at rest. */
  fresh(sheet: Sheet, way: number, rate: number): Heard;
  /**
   * What the sheet says now, where it is wired as before.
   *
   * @returns what makes it go there; undefined where another must be made
   */
  take(sheet: Sheet): (() => void) | undefined;
  /** Open the cut-off by a part of its travel, from now on. */
  open(by: number): void;
  /** The next slice: volts of the source, step by step, in; what is heard out. */
  play(input: Float64Array, output: Float64Array): void;
}
