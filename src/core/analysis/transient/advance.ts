import { inWords } from '@/core/quantity/format';
import { ReedError } from '@/core/errors';
import type { Stepper } from './stepper';

/** The right-hand side over time; `before` takes it just before a jump. */
export interface RightHandSide {
  at(t: number, before: number): Float64Array;
}

/**
 * One step, divided where Newton's method does not settle.
 *
 * @throws ReedError `convergence` naming time and device
 */
export function advance(
  stepper: Stepper,
  drive: RightHandSide,
  from: number,
  to: number,
  after: boolean,
  breakAhead: boolean,
  depth = 0,
): void {
  const h = to - from;
  if (stepper.step(h, drive.at(to, breakAhead ? h * 1e-4 : 0), after ? 'euler' : 'trapezoidal'))
    return;
  if (depth > 24) throw stuck(stepper, from);
  const middle = from + h / 2;
  advance(stepper, drive, from, middle, after, false, depth + 1);
  advance(stepper, drive, middle, to, false, breakAhead, depth + 1);
}

export function stuck(stepper: Stepper, t: number): ReedError {
  return new ReedError(
    'convergence',
    `The run stops at ${inWords(t, 'seconds')}: ${stepper.culprit || 'the circuit'} jumps faster than any step can follow. Give it a small capacitance or a resistance in series.`,
    { part: stepper.culprit.replace(/^part /, '') },
  );
}
