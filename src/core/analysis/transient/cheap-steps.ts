import type { SourceTerm } from '@/core/circuit/stamper';
import { waveformOnGrid } from '@/core/circuit/waveform-grid';
import { CompiledSteps } from '../compiled/compiled-steps';
import { Refusal } from '../compiled/stepped-circuit';
import type { LargeSignalEquations } from '../large-signal/equations';
import type { Drive } from './drive';
import { PAYS_FROM, QuickStepper } from './quick-stepper';
import type { Recorder } from './recorder';
import type { Stepper } from './stepper';

/** A step of the grid is taken in up to so many parts, powers of two: compiled ones cost next to nothing. */
const FINEST = 64;
const FINEST_PLAIN = 4;
/** After so many steps of the grid without trouble half as many parts are tried; where that is in vain, after more. */
const CALM = 4;
const MOST_CALM = 128;

export interface CheapStepsRequest {
  /** Length of the grid's steps. */
  seconds: number;
  /** What their error may be, as a part of each voltage's swing. */
  tolerance: number;
  /** How many there are about to be. */
  steps: number;
  by?: StepsBy;
}

/**
 * What takes given steps: compiled code, the plain stepper, or its twin, which is the plain stepper
 * taking the very steps that compiled code would.
 */
export type StepsBy = 'compiled' | 'plain' | 'twin';

/**
 * Steps of a given grid by the trapezoidal rule, in one to sixty-four equal parts each: many at a time by
 * compiled code where it pays, and one by one by the plain stepper, its twin, where it does not or
 * where it gave up.
 */
export class CheapSteps {
  private readonly quick: QuickStepper | undefined;
  /** Parts that steps are taken in, most of them, and steps since there was trouble. */
  private parts = 1;
  private readonly finest: number;
  private calm = 0;
  /** How long calm has to last for fewer parts. */
  private patience = CALM;
  /** Finest parts done of a step that is under way. */
  private done = 0;
  private readonly moving: readonly SourceTerm[];

  constructor(
    equations: LargeSignalEquations,
    private readonly stepper: Stepper,
    private readonly drive: Drive,
    private readonly recorder: Recorder,
    private readonly request: CheapStepsRequest,
  ) {
    this.moving = drive.moving;
    const { steps, by = steps >= PAYS_FROM ? 'compiled' : 'plain' } = request;
    this.finest = by === 'plain' ? FINEST_PLAIN : FINEST;
    if (by !== 'compiled') return;
    this.quick = new QuickStepper(equations, stepper, {
      rest: drive.steady().slice(),
      restRows: new Set(drive.sources.flatMap((s) => (s.waveform ? [] : [s.row]))),
      inputs: this.moving,
      outputs: recorder.unknowns.filter((unknown) => unknown >= 0),
    });
  }

  /**
   * Steps of the grid from the one that ends at `first` times their length on.
   *
   * @param most so many
   * @returns the steps that were taken, and when the circuit has got to: where the next step can only be
   *   taken carefully, that may be within it
   */
  take(first: number, most: number): { steps: number; seconds: number } {
    let steps = 0;
    while (steps === 0) {
      const taken = this.some(first, most);
      if (taken > 0) {
        this.done += taken * (FINEST / this.parts);
        steps = Math.floor(this.done / FINEST);
        this.done -= steps * FINEST;
        this.calm += steps;
        this.rest();
      } else if (this.parts < this.finest && this.stepper.known === 2 && !this.stepper.fresh) {
        this.patience = this.calm === 0 ? Math.min(MOST_CALM, 2 * this.patience) : CALM;
        this.parts *= 2;
        this.calm = 0;
      } else break;
    }
    const { seconds } = this.request;
    return { steps, seconds: (first - 1 + steps) * seconds + (this.done * seconds) / FINEST };
  }

  /** After some calm longer parts are tried, from the end of a step on. */
  private rest(): void {
    if (this.parts === 1 || this.done > 0 || this.calm < this.patience) return;
    this.parts /= 2;
    this.calm = 0;
  }

  /** The stepper has the state, and leads it to the end of the step. */
  leave(): void {
    this.quick?.leave();
    this.done = 0;
  }

  /** Parts of steps from where the circuit is; how many were taken. */
  private some(first: number, most: number): number {
    const { parts, quick } = this;
    const seconds = this.request.seconds / parts;
    const kernel = quick?.ready(seconds);
    if (!quick || !kernel) return this.plainStep(first);
    // As many as end together with a step of the grid, or before.
    const patience = parts > 1 ? Math.max(1, this.patience - this.calm) : most;
    const grid = Math.min(most, patience, CompiledSteps.most / parts);
    const before = (this.done * parts) / FINEST;
    const wanted = quick.evenFor(seconds) ? Math.max(1, grid * parts - before) : 1;
    this.give(kernel, (first - 1) * parts + before + 1, wanted);
    const taken = quick.take(kernel, seconds, this.request.tolerance / parts, wanted);
    this.record(kernel, first, before, taken);
    // What the kernel found and refused the plain stepper would refuse.
    return taken > 0 || kernel.refusal === Refusal.error ? taken : this.plainStep(first);
  }

  /** The steps of the grid that end among the parts that a kernel took after some others. */
  private record(kernel: CompiledSteps, first: number, before: number, taken: number): void {
    const { recorder, parts } = this;
    const { seconds } = this.request;
    const ends = Math.floor((before + taken) / parts);
    if (ends > 0) recorder.takeAll(ends, first, seconds, kernel.outputs, parts - before - 1, parts);
  }

  private plainStep(first: number): number {
    this.quick?.leave();
    const { stepper, drive, recorder, parts, done } = this;
    const seconds = this.request.seconds / parts;
    const ends = done + FINEST / parts;
    const t = (first - 1) * this.request.seconds + (ends * this.request.seconds) / FINEST;
    const error = stepper.tryTrapezoidal(seconds, drive.at(t, 1), this.request.tolerance / parts);
    if (!(error <= 1)) return 0;
    stepper.take(seconds);
    if (ends === FINEST) recorder.take(first * this.request.seconds);
    return 1;
  }

  /** @param first part whose end is the first time, counted from the beginning */
  private give({ inputs }: CompiledSteps, first: number, count: number): void {
    const { moving, parts } = this;
    const grid = { first, count, seconds: this.request.seconds / parts };
    for (let n = 0; n < moving.length; n++)
      waveformOnGrid(moving[n].waveform!, grid, inputs, n, moving.length);
  }
}
