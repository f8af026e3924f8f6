import { blockChoices, type Base } from './block-choices';
import { blocksOf } from './blocks';
import { combined } from './combine';
import { costOf, worstOf } from './cost';
import { nearestOffer, type Offer } from './offers';
import { polish, withPairs, withTrimmersSet, type Polished } from './polish';
import type { Choice, FitProblem } from './problem';
import { solveExact } from './solve-exact';
import { towardsReadings } from './towards-readings';
import { Trial } from './trial';

export interface Fitted {
  /** Every part by itself, rounded to what is nearest. */
  nearest: Choice;
  /** All of them together; never worse. */
  fitted: Choice;
}

/** Rows of choices that are followed up. */
const FOLLOWED = 10;

/**
 * Choose real values for all parts of a circuit at once. Parts that come in few values are chosen
 * first, the others solved again exactly, then neighbours are searched on the true circuit, so that
 * real op-amps, source and load are made up for. Each better choice is handed over as it is found.
 *
 * @returns what was found; whoever stops earlier has the last that was handed over
 */
export function* fit(problem: FitProblem): Generator<Choice, Fitted> {
  const { parts, wanted } = problem;
  const trial = new Trial(problem.circuit, problem.probe, parts);
  const judge = judgeOf(problem, trial);
  const nearest = judge(nearestOffers(problem));
  let best = nearest;
  yield best;
  if (parts.length === 0) return { nearest, fitted: best };
  const base = baseOf(problem, trial);
  const blocks = blocksOf(
    problem.circuit,
    parts.map((p) => p.id),
  );
  const choices = [];
  for (const block of blocks) {
    choices.push(base ? blockChoices(trial, wanted.coarse, base, parts, block) : []);
    yield best;
  }
  const rows = choices.every((list) => list.length > 0)
    ? combined(blocks, choices, base!.errors)
        .filter((offers) => problem.enough?.(offers) ?? true)
        .slice(0, FOLLOWED)
    : [];
  const finalists: Polished[] = [];
  for (const start of [nearest.offers, ...rows]) {
    const found = polish(trial, wanted.coarse, start, problem);
    if (found && (problem.enough?.(found.offers) ?? true))
      finalists.push(withTrimmersSet(trial, wanted.coarse, found, problem));
    yield best;
  }
  finalists.sort((a, b) => a.cost - b.cost);
  for (const finalist of finalists.slice(0, FOLLOWED / 2)) {
    const paired = parts.some((p) => p.pairsNear)
      ? withPairs(trial, wanted.coarse, finalist, problem)
      : finalist;
    best = better(best, judge(paired.offers), nearest);
    yield best;
  }
  if (best.missed > 0)
    best = yield* towardsReadings(problem, best, (a, offers) => better(a, judge(offers), nearest));
  return { nearest, fitted: best };
}

/** Values that would be right on the true circuit if any could be had. */
function baseOf({ parts, wanted }: FitProblem, trial: Trial): Base | undefined {
  const exact = parts.map((p) => p.exact);
  const all = parts.map((_, i) => i);
  const before = trial.softError(exact, wanted.coarse);
  if (!before) return undefined;
  const whole = solveExact(trial, wanted.coarse, exact, all, false);
  const [off, left] = [before, whole?.errors ?? before].map((e) =>
    Math.abs(e.reduce((a, b) => a + b, 0) / e.length),
  );
  // A loss that no value makes up for must not be paid for with the shape.
  const even = off > HEIGHT_DB && left > off / 3;
  const found = even ? solveExact(trial, wanted.coarse, exact, all, true) : whole;
  return found && { ...found, even };
}

/** A height that is wrong by less is no matter of its own, dB. */
const HEIGHT_DB = 0.05;

type Judge = (offers: readonly Offer[]) => Choice;

function judgeOf({ wanted, readings }: FitProblem, trial: Trial): Judge {
  return (offers: readonly Offer[]): Choice => {
    const values = offers.map((o) => o.value);
    const errors = trial.error(values, wanted.fine);
    return {
      offers,
      worstDb: errors ? worstOf(errors) : Infinity,
      cost: errors ? costOf(errors.map((e, k) => e * wanted.fine.weights[k])) : Infinity,
      missed: readings?.missed(readings.read(values)) ?? 0,
    };
  };
}

/**
 * The better of two: met readings count before the curve, a missed one as much as half a decibel for
 * its whole room; and no curve may be worse than by rounding.
 */
function better(a: Choice, b: Choice, nearest: Choice): Choice {
  if (b.worstDb > nearest.worstDb) return a;
  if ((a.missed === 0) !== (b.missed === 0)) return b.missed === 0 ? b : a;
  const [ownA, ownB] = [a, b].map(({ cost, missed }) => cost + MISSED_DB * missed);
  return ownB < ownA ? b : a;
}
const MISSED_DB = 0.5;

/** Every part rounded by itself, to what is still there. */
function nearestOffers({ parts, enough }: FitProblem): Offer[] {
  const taken: Offer[] = [];
  for (const { singles, exact, trimmed, pairsNear } of parts) {
    const set = trimmed ? pairsNear?.(exact)[0] : undefined;
    if (set && (enough?.([...taken, set]) ?? true)) {
      taken.push(set);
      continue;
    }
    const left = enough ? singles.filter((offer) => enough([...taken, offer])) : singles;
    taken.push(nearestOffer(left.length > 0 ? left : singles, exact)!);
  }
  return taken;
}
