import { CompiledSteps, type StepsRequest } from '../compiled/compiled-steps';
import type { LargeSignalEquations } from '../large-signal/equations';
import {
  FORGETTING,
  LEAST_SWING,
  LEAST_VOLTS,
  parabola,
  trapezoidalError,
  type Stepper,
} from './stepper';

/** Compiling takes as long as some thousands of plain steps. */
export const PAYS_FROM = 4000;

/** A kernel that takes no step most times it is called is made anew for the present state ... */
const LEAST_TAKEN = 1 / 4;
/** ... judged after so many calls, and so many times. */
const CALLS = 256;
const MOST_KERNELS = 3;

/** What the right-hand side is made of, and what is written down after each step. */
export type Driven = Pick<StepsRequest, 'rest' | 'restRows' | 'inputs' | 'outputs'>;

/** Compiled trapezoidal steps beside a plain stepper: whichever goes on has the state. */
export class QuickStepper {
  private kernel: CompiledSteps | undefined;
  private kernelsLeft = MOST_KERNELS;
  private calls = 0;
  private taken = 0;
  /** Length of the steps that the kernel is prepared for. */
  private prepared = 0;
  /** The kernel has the state, not the stepper. */
  private inside = false;

  constructor(
    private readonly equations: LargeSignalEquations,
    private readonly stepper: Stepper,
    private readonly driven: Driven,
  ) {}

  /** A kernel for steps of this length, where there is one and enough points are known. */
  ready(seconds: number): CompiledSteps | undefined {
    const { stepper } = this;
    if (stepper.known < 2 || stepper.fresh) return undefined;
    if (!this.kernel && this.kernelsLeft > 0) this.compile(seconds);
    const { kernel } = this;
    if (!kernel || this.prepared === seconds) return kernel;
    this.prepared = seconds;
    if (kernel.prepare(seconds)) return kernel;
    this.drop();
    return undefined;
  }

  private compile(seconds: number): void {
    this.kernelsLeft--;
    this.kernel = CompiledSteps.of(this.equations, this.stepper.x, {
      ...this.driven,
      size: { least: LEAST_SWING, forgetting: FORGETTING, volts: LEAST_VOLTS },
      seconds,
    });
    this.prepared = this.calls = this.taken = 0;
    if (!this.kernel) this.kernelsLeft = 0;
  }

  /** Several steps at once only follow two that were as long. */
  evenFor(seconds: number): boolean {
    const { gaps } = this.stepper;
    return gaps[0] === seconds && gaps[1] === seconds;
  }

  /**
   * Steps of one length by the kernel that is ready for them, its inputs filled in.
   *
   * @returns how many were taken
   */
  take(kernel: CompiledSteps, seconds: number, tolerance: number, count: number): number {
    const { stepper } = this;
    if (!this.inside) kernel.enter(stepper);
    this.inside = true;
    const { gaps } = stepper;
    const error = trapezoidalError(seconds, gaps) / tolerance;
    kernel.follow(seconds, parabola(seconds, gaps), error);
    const taken = kernel.advance(count);
    if (taken > 0) {
      gaps[1] = taken > 1 ? seconds : gaps[0];
      gaps[0] = seconds;
    }
    this.judge(taken);
    return taken;
  }

  /** Pivots that served one state may serve another badly. */
  private judge(taken: number): void {
    this.calls++;
    this.taken += taken;
    if (this.calls < CALLS) return;
    if (this.taken < LEAST_TAKEN * this.calls) this.drop();
    this.calls = this.taken = 0;
  }

  private drop(): void {
    this.leave();
    this.kernel = undefined;
  }

  /** The stepper has the state from now on. */
  leave(): void {
    if (this.inside) this.kernel!.leave(this.stepper);
    this.inside = false;
  }
}
