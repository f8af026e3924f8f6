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
const CALLS = 32;
const MOST_KERNELS = 3;

export interface CheapStepsRequest {
  /** Length of all steps. */
  seconds: number;
  /** What their error may be, as a part of each voltage's swing. */
  tolerance: number;
  /** How many there are about to be. */
  steps: number;
  compiledFrom?: number;
}

/**
 * Steps of one given length by the trapezoidal rule: many at a time by compiled code where it pays,
 * and one by one by the plain stepper, its twin, where it does not or where it gave up.
 */
export class CheapSteps {
  private kernel: CompiledSteps | undefined;
  private kernelsLeft: number;
  private calls = 0;
  private taken = 0;
  /** The kernel holds the state, not the stepper. */
  private inside = false;
  /** The step that the kernel gave up. */
  private refused = -1;
  private readonly moving: Drive['moving'];
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
    const { steps, compiledFrom = PAYS_FROM } = request;
    this.kernelsLeft = steps >= compiledFrom ? MOST_KERNELS : 0;
  }

  /**
   * Steps that end at `first` times their length, and after it.
   *
   * @param most so many
   * @returns how many were taken; none where the next one does not settle or errs too much
   */
  take(first: number, most: number): number {
    const kernel = first === this.refused ? undefined : this.readyKernel();
    if (!kernel) return this.plainStep(first);
    const { stepper } = this;
    const { seconds, tolerance } = this.request;
    if (!this.inside) kernel.enter(stepper);
    this.inside = true;
    const { gaps } = stepper;
    kernel.follow(seconds, parabola(seconds, gaps), trapezoidalError(seconds, gaps) / tolerance);
    const even = gaps[0] === seconds && gaps[1] === seconds;
    const steps = even ? Math.min(most, CompiledSteps.most) : 1;
    this.give(kernel, first, steps);
    const taken = kernel.advance(steps);
    this.recorder.takeAll(taken, first, seconds, kernel.outputs);
    if (taken > 0) {
      gaps[1] = taken > 1 ? seconds : gaps[0];
      gaps[0] = seconds;
    }
    this.judge(taken);
    if (taken < steps) this.refused = first + taken;
    if (taken > 0) return taken;
    return this.plainStep(first);
  }

  /** The stepper has the state from now on. */
  leave(): void {
    if (this.inside) this.kernel!.leave(this.stepper);
    this.inside = false;
  }

  private plainStep(k: number): number {
    this.leave();
    const { stepper, drive, recorder } = this;
    const { seconds, tolerance } = this.request;
    const t = k * seconds;
    if (!(stepper.tryTrapezoidal(seconds, drive.at(t, 1), tolerance) <= 1)) return 0;
    stepper.take(seconds);
    recorder.take(t);
    return 1;
  }

  /** A kernel for the present state, where there is to be one and enough points are known. */
  private readyKernel(): CompiledSteps | undefined {
    const { stepper } = this;
    if (stepper.known < 2 || stepper.fresh) return undefined;
    if (!this.kernel && this.kernelsLeft > 0) {
      this.kernelsLeft--;
      this.kernel = this.compile();
      this.calls = this.taken = 0;
      if (!this.kernel) this.kernelsLeft = 0;
    }
    return this.kernel;
  }

  private compile(): CompiledSteps | undefined {
    const { drive, moving, stepper, outputs } = this;
    const { seconds } = this.request;
    const kernel = CompiledSteps.of(this.equations, stepper.x, {
      rest: drive.steady().slice(),
      restRows: new Set(drive.sources.flatMap((s) => (s.waveform ? [] : [s.row]))),
      inputs: moving,
      outputs,
      size: { least: LEAST_SWING, forgetting: FORGETTING, volts: LEAST_VOLTS },
      seconds,
    });
    return kernel?.prepare(seconds) ? kernel : undefined;
  }

  private give({ inputs }: CompiledSteps, first: number, steps: number): void {
    const { moving } = this;
    const { seconds } = this.request;
    const grid = { first, count: steps, seconds };
    for (let n = 0; n < moving.length; n++)
      waveformOnGrid(moving[n].waveform!, grid, inputs, n, moving.length);
  }

  /** Pivots that served one state may serve another badly. */
  private judge(taken: number): void {
    this.calls++;
    this.taken += taken;
    if (this.calls < CALLS) return;
    if (this.taken < FEW * this.calls) {
      this.leave();
      this.kernel = undefined;
    }
    this.calls = this.taken = 0;
  }
}
