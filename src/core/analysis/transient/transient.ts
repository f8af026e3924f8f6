import { ReedError, stopIfAsked } from '@/core/errors';
import { checkWiring } from '@/core/circuit/check';
import { compile } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import { constantOf, type SourceTerm } from '@/core/circuit/stamper';
import { nextBreak, waveformValue } from '@/core/circuit/waveform';
import { OperatingPointSearch } from '../dc/search';
import { advance, stuck } from './advance';
import { Stepper } from './stepper';

export interface TransientRequest {
  untilSeconds: number;
  /** With a step the grid is fixed (audio); without one it follows the error. */
  stepSeconds?: number;
  probes: readonly string[];
  /** Allowed local error of the free grid, as a part of each voltage's swing. Default 1e-4. */
  tolerance?: number;
  signal?: AbortSignal;
}

export interface TransientResult {
  timesSeconds: Float64Array;
  /** Volts by net, at each time. */
  probes: Record<string, Float64Array>;
}

const MOST_POINTS = 20_000_000;

/**
 * A circuit over time from its operating point: the trapezoidal rule, with one backward-Euler step
 * after each jump of a source (so that the rule does not ring), jumps hit exactly, Newton's method
 * at each step (A. Ruehli, ed., "Circuit Analysis, Simulation and Design", 1986, chapter 3).
 *
 * @throws ReedError `range` for a time or step that cannot be, `convergence` naming time and device
 */
export function transient(circuit: Circuit, request: TransientRequest): TransientResult {
  const { untilSeconds, stepSeconds, probes, signal } = request;
  if (!(untilSeconds > 0) || !Number.isFinite(untilSeconds))
    throw new ReedError(
      'range',
      `${untilSeconds} is not a time to run until: give seconds above zero.`,
    );
  if (stepSeconds !== undefined && !(stepSeconds > 0 && stepSeconds <= untilSeconds)) {
    throw new ReedError(
      'range',
      `A step of ${stepSeconds} s cannot be: it must be above zero and at most the ${untilSeconds} s of the run.`,
    );
  }
  checkWiring(circuit, 'dc');
  const system = compile(circuit, 'large-signal');
  const unknowns = probes.map((net) => {
    if (net === circuit.ground) return -1;
    const index = system.netIndex.get(net);
    if (index === undefined)
      throw new ReedError(
        'circuit',
        `The circuit has no net “${net}” to probe. Its nets are ${[...system.netIndex.keys()].join(', ')}.`,
        { net },
      );
    return index;
  });
  const search = new OperatingPointSearch(system, signal);
  const stepper = new Stepper(search.equations, search.find());
  const drive = new Drive(system.sources, search.equations.values.all, search.equations.size);
  const times: number[] = [0];
  const volts: number[][] = unknowns.map((u) => [u < 0 ? 0 : stepper.x[u]]);
  const record = (t: number) => {
    times.push(t);
    unknowns.forEach((u, i) => volts[i].push(u < 0 ? 0 : stepper.x[u]));
  };
  if (stepSeconds !== undefined)
    fixedGrid(stepper, drive, untilSeconds, stepSeconds, record, signal);
  else freeGrid(stepper, drive, untilSeconds, request.tolerance ?? 1e-4, record, signal);
  return {
    timesSeconds: Float64Array.from(times),
    probes: Object.fromEntries(probes.map((net, i) => [net, Float64Array.from(volts[i])])),
  };
}

/** The right-hand side over time. */
export class Drive {
  readonly rhs: Float64Array;
  constructor(
    private readonly sources: readonly SourceTerm[],
    private readonly values: ArrayLike<number>,
    size: number,
  ) {
    this.rhs = new Float64Array(size);
  }

  /** Fill `rhs` for time t; `before` takes the value just before a jump at t. */
  at(t: number, before = 0): Float64Array {
    this.rhs.fill(0);
    for (const term of this.sources) {
      const { row, sign, waveform } = term;
      const now = waveform ? waveformValue(waveform, t - before) : constantOf(term, this.values);
      this.rhs[row] += sign * now;
    }
    return this.rhs;
  }

  nextBreak(t: number): number {
    let next = Infinity;
    for (const { waveform } of this.sources)
      if (waveform) next = Math.min(next, nextBreak(waveform, t));
    return next;
  }
}

/** Equal steps; a jump inside one divides it. */
function fixedGrid(
  stepper: Stepper,
  drive: Drive,
  until: number,
  step: number,
  record: (t: number) => void,
  signal?: AbortSignal,
): void {
  const count = Math.round(until / step);
  if (count > MOST_POINTS)
    throw new ReedError(
      'range',
      `${count} steps are too many: take a longer step or a shorter run.`,
    );
  let t = 0;
  let after = true; // the sources may jump at t = 0
  let stop = drive.nextBreak(0);
  const near = 1e-6 * step;
  for (let k = 1; k <= count; k++) {
    if ((k & 255) === 0) stopIfAsked(signal);
    const end = k * step;
    while (stop < end - near) {
      if (stop > t + near) advance(stepper, drive, t, stop, after, true);
      t = stop;
      after = true;
      stop = drive.nextBreak(stop);
    }
    const atBreak = Math.abs(stop - end) <= near;
    advance(stepper, drive, t, end, after, atBreak);
    after = atBreak;
    if (atBreak) stop = drive.nextBreak(stop);
    t = end;
    record(t);
  }
}

/** Steps chosen so that the estimated local error stays within tolerance. */
function freeGrid(
  stepper: Stepper,
  drive: Drive,
  until: number,
  tolerance: number,
  record: (t: number) => void,
  signal?: AbortSignal,
): void {
  const least = until * 1e-12;
  const longest = until / 50;
  let t = 0;
  let h = until * 1e-6;
  let sinceBreak = 0;
  let stop = drive.nextBreak(0);
  for (let k = 0; t < until - least; k++) {
    if ((k & 255) === 0) stopIfAsked(signal);
    if (k > MOST_POINTS)
      throw new ReedError(
        'range',
        'The run takes more than twenty million steps: shorten it or allow a larger error.',
      );
    const goal = Math.min(until, stop);
    let end = t + Math.min(h, longest);
    // Neither leave a sliver before the goal nor step over it.
    if (end > goal - least || goal - end < 0.1 * (end - t)) end = goal;
    const taken = end - t;
    stepper.keep();
    const atBreak = end === stop;
    const settled = stepper.step(
      taken,
      drive.at(end, atBreak ? taken * 1e-4 : 0),
      sinceBreak === 0 ? 'euler' : 'trapezoidal',
    );
    const error = settled ? stepper.errorEstimate(tolerance) : Infinity;
    if (error > 1 && taken > least) {
      stepper.goBack();
      h = settled ? taken * Math.max(0.2, 0.9 * error ** (-1 / 3)) : taken / 4;
      continue;
    }
    if (!settled) throw stuck(stepper, t);
    t = end;
    record(t);
    sinceBreak++;
    h = taken * Math.min(2, Math.max(0.3, error > 0 ? 0.9 * error ** (-1 / 3) : 2));
    if (atBreak) {
      stop = drive.nextBreak(stop);
      sinceBreak = 0;
      stepper.forget();
      h = Math.min(h, until * 1e-6);
    }
  }
}
