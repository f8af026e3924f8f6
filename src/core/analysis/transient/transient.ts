import { checkWiring } from '@/core/circuit/check';
import { compile, type System } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import { breaksPerSecond, followedHz } from '@/core/circuit/waveform';
import { ReedError, stopIfAsked } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { OperatingPointSearch } from '../dc/search';
import { netUnknown } from '../net-unknown';
import { Pace } from './advance';
import { CheapSteps, type StepsBy } from './cheap-steps';
import { Drive } from './drive';
import { Recorder } from './recorder';
import { Stepper } from './stepper';

export interface TransientRequest {
  untilSeconds: number;
  /** With a step the times are given, and shorter steps lie between them; without one they follow the error. */
  stepSeconds?: number;
  probes: readonly string[];
  /** Allowed local error as a part of each voltage's swing. Default 1e-4. */
  tolerance?: number;
  /** What takes steps of a given length; default: compiled code where it pays. */
  by?: StepsBy;
  signal?: AbortSignal;
}

export interface TransientResult {
  /** 0, every step, and the end. */
  timesSeconds: Float64Array;
  /** Volts by net, at each time; at a jump, those before it. */
  probes: Record<string, Float64Array>;
}

const MOST_POINTS = 20_000_000;
/** Of the tolerance, what the embedded error may be: phase keeps to 1e-5 a cycle then. */
const EMBEDDED = 1 / 1000;
/** Of the tolerance, what the error of a given trapezoidal step may be. */
const TRAPEZOIDAL = 1 / 10;
/** A followed sine gets at least so many steps a cycle. */
const STEPS_A_CYCLE = 12;

/**
 * A circuit over time from its operating point, jumps of its sources hit exactly, Newton's method at
 * each step: by a one-step method of order 4 that damps what is faster than its steps (see
 * tableau.ts), in steps whose error stays within tolerance. On a given grid bent circuits are first
 * tried by the trapezoidal rule, which counts where its error is small.
 *
 * @throws ReedError `range` for a time or step that cannot be, `convergence` naming time and device
 */
export function transient(circuit: Circuit, request: TransientRequest): TransientResult {
  const { untilSeconds: until, stepSeconds, probes, tolerance = 1e-4, signal } = request;
  checkTimes(until, stepSeconds);
  checkWiring(circuit, 'dc');
  const system = compile(circuit, 'large-signal');
  const unknowns = probes.map((net) => netUnknown(system, net));
  checkLength(system, until, stepSeconds);
  const search = new OperatingPointSearch(system, signal);
  const stepper = new Stepper(search.equations, search.find());
  const drive = new Drive(system.sources, search.equations.values.all, search.equations.size);
  const recorder = new Recorder(
    unknowns,
    stepper.x,
    stepSeconds && Math.ceil(until / stepSeconds) + 1,
  );
  recorder.take(0);
  const followed = Math.max(
    0,
    ...system.sources.map((s) => (s.waveform ? followedHz(s.waveform) : 0)),
  );
  const longest = Math.min(
    stepSeconds ?? until / 50,
    followed > 0 ? 1 / (STEPS_A_CYCLE * followed) : Infinity,
  );
  const pace = new Pace(stepper, drive, EMBEDDED * tolerance, longest);
  const run = { stepper, drive, pace, until, recorder, signal };
  if (stepSeconds === undefined) freeGrid(run);
  else {
    const cheap = new CheapSteps(search.equations, stepper, drive, recorder, {
      seconds: stepSeconds,
      tolerance: TRAPEZOIDAL * tolerance,
      steps: until / stepSeconds,
      by: request.by,
    });
    fixedGrid(run, stepSeconds, search.equations.linear ? undefined : cheap);
  }
  return {
    timesSeconds: recorder.timesSeconds(),
    probes: Object.fromEntries(probes.map((net, i) => [net, recorder.volts(i)])),
  };
}

function checkTimes(until: number, step: number | undefined): void {
  if (!(until > 0) || !Number.isFinite(until))
    throw new ReedError('range', `${until} is not a time to run until: give seconds above zero.`);
  if (step !== undefined && !(step > 0 && step <= until)) {
    throw new ReedError(
      'range',
      `A step of ${step} s cannot be: it must be above zero and at most the ${until} s of the run.`,
    );
  }
}

/** Steps, and jumps and bends of the sources, that are bound to come. */
function checkLength(system: System, until: number, step: number | undefined): void {
  for (const { part, waveform } of system.sources) {
    if (!waveform) continue;
    const breaks =
      until * Math.max(breaksPerSecond(waveform), STEPS_A_CYCLE * followedHz(waveform));
    if (breaks > MOST_POINTS)
      throw new ReedError(
        'range',
        `Source “${part}” changes ${breaks.toPrecision(3)} times in ${inWords(until, 'seconds')}, and each time takes a step: run for a shorter time, or lower its frequency.`,
        { part },
      );
  }
  if (step !== undefined && until / step > MOST_POINTS)
    throw new ReedError(
      'range',
      `${(until / step).toPrecision(3)} steps are too many: take a longer step or a shorter run.`,
    );
}

interface Run {
  stepper: Stepper;
  drive: Drive;
  pace: Pace;
  until: number;
  recorder: Recorder;
  signal?: AbortSignal;
}

/** The given times, and the end; shorter steps lie between them, and end where a source jumps or bends. */
function fixedGrid(
  { stepper, drive, pace, until, recorder, signal }: Run,
  step: number,
  cheap: CheapSteps | undefined,
): void {
  const near = 1e-9 * step;
  const count = Math.ceil(until / step - 1e-9);
  /** Steps of full length; the last one may be shorter. */
  const full = count * step > until + near ? count - 1 : count;
  // Bends that all lie on the grid end steps anyway.
  const inside = drive.breaksWithin(step);
  let t = 0;
  let obstacle = inside.nextBreak(0);
  for (let k = 1; k <= count;) {
    stopIfAsked(signal);
    const free = Math.min(full, Math.ceil((obstacle - near) / step) - 1) - k + 1;
    if (cheap && free > 0) {
      const taken = cheap.take(k, free);
      k += taken.steps;
      t = taken.seconds;
      if (taken.steps > 0) continue;
    }
    cheap?.leave();
    const end = k === count ? until : k * step;
    let stop = drive.nextBreak(t);
    while (t < end) {
      const goal = stop < end - near ? stop : end;
      const atBreak = stop <= goal + near;
      t = pace.step(t, goal, atBreak ? -1 : 1);
      if (t === goal && atBreak) stop = passBreak(stepper, drive, stop);
    }
    recorder.take(end);
    while (obstacle <= end + near) obstacle = inside.nextBreak(obstacle);
    k++;
  }
}

/** Steps chosen so that the estimated local error stays within tolerance. */
function freeGrid({ stepper, drive, pace, until, recorder, signal }: Run): void {
  let t = 0;
  let stop = drive.nextBreak(0);
  for (let k = 0; t < until; k++) {
    if ((k & 255) === 0) stopIfAsked(signal);
    if (k > MOST_POINTS)
      throw new ReedError(
        'range',
        'The run takes more than twenty million steps: shorten it or allow a larger error.',
      );
    const goal = Math.min(until, stop);
    t = pace.step(t, goal, goal === stop ? -1 : 1);
    recorder.take(t);
    if (t === stop) stop = passBreak(stepper, drive, stop);
  }
}

/** Leave a jump or a bend behind; returns when the next one comes. */
function passBreak(stepper: Stepper, drive: Drive, stop: number): number {
  if (drive.jumpsAt(stop)) stepper.fresh = true;
  return drive.nextBreak(stop);
}
