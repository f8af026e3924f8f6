import { Successive } from '@/core/analysis/ac/successive';
import { growth, ON_AXIS, polesOf, type Root } from '@/core/analysis/poles/poles';
import { ReedError } from '@/core/errors';
import { along } from '@/core/numeric/along';
import { findPeak, findZero } from '@/core/numeric/root';
import { toItsEnd } from '@/core/to-its-end';
import type { Varied } from './vary';

export interface ThresholdRequest {
  from: number;
  to: number;
  /** Even steps; otherwise by ratio, where both ends lie on one side of nought. */
  even?: boolean;
}

/** Where a circuit begins to oscillate, or why it does not. */
export type Threshold =
  { value: number; hz: number; why: null } | { value: null; hz: null; why: string };

/** Looked at first: so many places. */
const PLACES = 49;
/** A value is told to this part of the range. */
const FINE = 1e-13;
/** Leaning by less, a pair is on the axis; a jump past it is not. */
const REACHED = 1e-6;
/** Maxima between places that come so near to the axis are closed in on. */
const NEAR = 0.2;

/**
 * The first value, from one end of a range to the other, at which a pair of poles of the biased
 * circuit reaches the axis (H. Nyquist's condition in terms of roots: a pair at ±jw neither grows nor
 * decays, and the circuit oscillates at w). The operating point is found anew at each value.
 *
 * @throws ReedError `convergence` where a value has no operating point, `range` for ends that cannot be
 */
export function threshold(at: Varied, request: ThresholdRequest): Threshold {
  return toItsEnd(seekingThreshold(at, request));
}

/** The same as a generator that stops after every place. */
export function* seekingThreshold(
  at: Varied,
  { from, to, even }: ThresholdRequest,
): Generator<void, Threshold> {
  if (from === to || !Number.isFinite(from) || !Number.isFinite(to))
    throw new ReedError('range', `Between ${from} and ${to} there is no value: give two ends.`);
  const byRatio = !even;
  const valueAt = (u: number) => {
    if (u <= 0 || u >= 1) return u <= 0 ? from : to;
    return along(from, to, u, byRatio);
  };
  const pairs = new LeastDamped(at, valueAt);
  const none = (why: string): Threshold => ({ value: null, hz: null, why });
  const before = pairs.at(0);
  if (before.real > 0) return none(`At ${from} it does not oscillate but runs away: ${RUNS_AWAY}.`);
  if (before.pair >= -ON_AXIS)
    return none(
      `At ${from} it oscillates already, at ${before.hz.toPrecision(6)} Hz: begin lower.`,
    );
  const leaning = (u: number) => pairs.at(u).pair;
  const found = (u: number): Threshold => ({ value: valueAt(u), hz: pairs.at(u).hz, why: null });
  for (let k = 1; k < PLACES; k++) {
    yield;
    const [a, b] = [(k - 1) / (PLACES - 1), k / (PLACES - 1)];
    const [was, is] = [leaning(a), leaning(b)];
    // Between two places it may come and go.
    const top = is < 0 ? summit(leaning, [a, b], [was, is]) : b;
    if (leaning(top) >= 0) {
      const reached = findZero(leaning, a, top, FINE);
      if (Math.abs(leaning(reached)) < REACHED) return found(reached);
    }
    if (pairs.at(b).real > 0)
      return none(
        `From ${valueAt(b).toPrecision(4)} on it does not oscillate but runs away: ${RUNS_AWAY}.`,
      );
  }
  const places = Array.from({ length: PLACES }, (_, k) => k / (PLACES - 1));
  const nearest = places.reduce((a, b) => (leaning(b) > leaning(a) ? b : a));
  const { pair, hz } = pairs.at(nearest);
  return none(
    hz > 0
      ? `No pair of poles reaches the axis: at ${valueAt(nearest).toPrecision(4)} one comes nearest, at ${hz.toPrecision(4)} Hz with a Q of ${(-1 / (2 * pair)).toPrecision(3)}.`
      : 'No pair of poles is complex anywhere in this range: nothing rings.',
  );
}

const RUNS_AWAY = 'a real pole lies right of the axis, and its output goes to a limit and stays';

/** The highest point between two places, where the course looks as if it had one. */
function summit(
  leaning: (u: number) => number,
  [a, b]: readonly [number, number],
  [was, is]: readonly [number, number],
): number {
  const inside = (b - a) / 16;
  const rises = leaning(a + inside) > was && leaning(b - inside) > is;
  if (!rises || Math.max(was, is) < -NEAR) return b;
  return findPeak(leaning, a, b, (b - a) * 1e-5);
}

interface Damping {
  /** Of the least damped pair how far it leans to the right; -1 where no poles are a pair. */
  pair: number;
  hz: number;
  /** The same of the real poles. */
  real: number;
}

/** Of each place the pole pair that leans furthest to the right; what was worked out is kept. */
class LeastDamped {
  private readonly known = new Map<number, Damping>();
  private readonly solved = new Successive();

  constructor(
    private readonly circuitAt: Varied,
    private readonly valueAt: (u: number) => number,
  ) {}

  at(u: number): Damping {
    let found = this.known.get(u);
    if (!found) this.known.set(u, (found = dampingOf(this.polesAt(u))));
    return found;
  }

  private polesAt(u: number): Root[] {
    return polesOf(this.solved.of(this.circuitAt(this.valueAt(u))));
  }
}

function dampingOf(poles: readonly Root[]): Damping {
  const damping: Damping = { pair: -1, hz: 0, real: -1 };
  for (const pole of poles) {
    const lean = growth(pole);
    if (pole.im === 0) damping.real = Math.max(damping.real, lean);
    else if (lean > damping.pair) {
      damping.pair = lean;
      damping.hz = Math.hypot(pole.re, pole.im) / (2 * Math.PI);
    }
  }
  return damping;
}
