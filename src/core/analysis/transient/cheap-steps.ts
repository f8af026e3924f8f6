import type { SourceTerm } from '@/core/circuit/stamper';
import { waveformOnGrid } from '@/core/circuit/waveform-grid';
import { CompiledSteps } from '../compiled/compiled-steps';
import type { LargeSignalEquations } from '../large-signal/equations';
import type { Drive } from './drive';
import type { Recorder } from './recorder';
import {
  FORGETTING,
  LEAST_SWING,
  LEAST_VOLTS,
  parabola,
  trapezoidalError,
  type Stepper,
} from './stepper';

/** Compiling takes as long as some thousands of plain steps. */
const PAYS_FROM = 4000;
/** A kernel that takes fewer steps than this each time it is called is made anew for the present state ... */
const FEW = 4;
/** ... judged after so many calls, and so many times. */
const CALLS = 256;
const MOST_KERNELS = 3;
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
  private kernel: CompiledSteps | undefined;
  private kernelsLeft: number;
  private calls = 0;
  private taken = 0;
  /** The kernel holds the state, not the stepper. */
  private inside = false;
  /** Parts that steps are taken in, those the kernel is prepared for, and steps since there was trouble. */
  private parts = 1;
  private readonly finest: number;
  private prepared = 0;
  private calm = 0;
  /** How long calm has to last for fewer parts. */
  private patience = CALM;
  /** Finest parts done of a step that is under way. */
  private done = 0;
  private readonly moving: readonly SourceTerm[];
  private readonly outputs: number[];

  constructor(
    private readonly equations: LargeSignalEquations,
    private readonly stepper: Stepper,
    private readonly drive: Drive,
    private readonly recorder: Recorder,
    private readonly request: CheapStepsRequest,
  ) {
    this.moving = drive.moving;
    this.outputs = recorder.unknowns.filter((unknown) => unknown >= 0);
    const { steps, by = steps >= PAYS_FROM ? 'compiled' : 'plain' } = request;
    this.kernelsLeft = by === 'compiled' ? MOST_KERNELS : 0;
    this.finest = by === 'plain' ? FINEST_PLAIN : FINEST;
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
    this.toStepper();
    this.done = 0;
  }

  private toStepper(): void {
    if (this.inside) this.kernel!.leave(this.stepper);
    this.inside = false;
  }

  /** Parts of steps from where the circuit is; how many were taken. */
  private some(first: number, most: number): number {
    const kernel = this.readyKernel();
    if (!kernel) return this.plainStep(first);
    const { stepper, parts, calm, patience } = this;
    const seconds = this.request.seconds / parts;
    const tolerance = this.request.tolerance / parts;
    if (this.prepared !== parts) {
      this.prepared = parts;
      if (!kernel.prepare(seconds)) {
        this.dropKernel();
        return this.plainStep(first);
      }
    }
    if (!this.inside) kernel.enter(stepper);
    this.inside = true;
    const { gaps } = stepper;
    const error = trapezoidalError(seconds, gaps) / tolerance;
    kernel.follow(seconds, parabola(seconds, gaps), error);
    const even = gaps[0] === seconds && gaps[1] === seconds;
    // As many as end together with a step of the grid, or before.
    const grid = Math.min(
      most,
      parts > 1 ? Math.max(1, patience - calm) : most,
      CompiledSteps.most / parts,
    );
    const before = (this.done * parts) / FINEST;
    const wanted = even ? Math.max(1, grid * parts - before) : 1;
    this.give(kernel, (first - 1) * parts + before + 1, wanted);
    const taken = kernel.advance(wanted);
    this.record(kernel, first, before, taken);
    if (taken > 0) {
      gaps[1] = taken > 1 ? seconds : gaps[0];
      gaps[0] = seconds;
    }
    this.judge(taken);
    // What the kernel found and refused the plain stepper would refuse.
    return taken > 0 || kernel.erred ? taken : this.plainStep(first);
  }

  /** The steps of the grid that end among the parts that a kernel took after some others. */
  private record(kernel: CompiledSteps, first: number, before: number, taken: number): void {
    const { recorder, parts } = this;
    const { seconds } = this.request;
    const ends = Math.floor((before + taken) / parts);
    if (ends > 0) recorder.takeAll(ends, first, seconds, kernel.outputs, parts - before - 1, parts);
  }

  private plainStep(first: number): number {
    this.toStepper();
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

  /** A kernel for the present state, where there is to be one and enough points are known. */
  private readyKernel(): CompiledSteps | undefined {
    const { stepper } = this;
    if (stepper.known < 2 || stepper.fresh) return undefined;
    if (!this.kernel && this.kernelsLeft > 0) {
      this.kernelsLeft--;
      this.kernel = this.compile();
      this.prepared = this.calls = this.taken = 0;
      if (!this.kernel) this.kernelsLeft = 0;
    }
    return this.kernel;
  }

  private compile(): CompiledSteps | undefined {
    const { drive, moving, stepper, outputs } = this;
    return CompiledSteps.of(this.equations, stepper.x, {
      rest: drive.steady().slice(),
      restRows: new Set(drive.sources.flatMap((s) => (s.waveform ? [] : [s.row]))),
      inputs: moving,
      outputs,
      size: { least: LEAST_SWING, forgetting: FORGETTING, volts: LEAST_VOLTS },
      seconds: this.request.seconds / this.parts,
    });
  }

  /** @param first part whose end is the first time, counted from the beginning */
  private give({ inputs }: CompiledSteps, first: number, count: number): void {
    const { moving, parts } = this;
    const grid = { first, count, seconds: this.request.seconds / parts };
    for (let n = 0; n < moving.length; n++)
      waveformOnGrid(moving[n].waveform!, grid, inputs, n, moving.length);
  }

  /** Pivots that served one state may serve another badly. */
  private judge(taken: number): void {
    this.calls++;
    this.taken += taken;
    if (this.calls < CALLS) return;
    if (this.taken < FEW * this.calls) this.dropKernel();
    this.calls = this.taken = 0;
  }

  private dropKernel(): void {
    this.toStepper();
    this.kernel = undefined;
  }
}
