import { neighbours, type Offer } from './offers';
import type { Choice, FitProblem, WantedReadings } from './problem';

/** Steps along the list of values that a part takes at once. */
const STEPS = 2;
/** Of the moves that promise most, so many are tried. */
const TRIED = 16;
const MOST_ROUNDS = 3;

interface Step {
  part: number;
  offer: Offer;
  /** By how much each reading moves. */
  moves: readonly number[];
}

/**
 * Moves parts of a choice whose readings miss what is wanted of them, alone and two together. What
 * single steps do to every reading is read; what two do together is taken to be the sum.
 *
 * @param better the better of a choice and of offers to be judged
 */
export function* towardsReadings(
  { parts, readings, enough = () => true }: FitProblem,
  start: Choice,
  better: (choice: Choice, offers: readonly Offer[]) => Choice,
): Generator<Choice, Choice> {
  let best = start;
  if (!readings) return best;
  for (let round = 0; round < MOST_ROUNDS && best.missed > 0; round++) {
    const from = best.offers;
    const values = from.map((o) => o.value);
    const here = readings.read(values);
    const steps: Step[] = [];
    for (let part = 0; part < parts.length; part++) {
      for (const offer of neighbours(parts[part].singles, values[part], STEPS)) {
        const there = readings.read(values.map((v, i) => (i === part ? offer.value : v)));
        steps.push({ part, offer, moves: there.map((v, r) => v - here[r]) });
      }
      yield best;
    }
    for (const move of promising(steps, here, readings)) {
      const offers = [...from];
      for (const { part, offer } of move) offers[part] = offer;
      if (enough(offers)) best = better(best, offers);
      yield best;
      if (best.missed === 0) break;
    }
    if (best.offers === from) break;
  }
  return best;
}

/** Single steps and pairs of them, those first that promise to miss least. */
function promising(
  steps: readonly Step[],
  here: readonly number[],
  readings: WantedReadings,
): Step[][] {
  const moves = steps.flatMap((a, i) => [
    [a],
    ...steps.slice(i + 1).flatMap((b) => (b.part === a.part ? [] : [[a, b]])),
  ]);
  return moves
    .map((move) => ({
      move,
      missed: readings.missed(
        here.map((v, r) => move.reduce((sum, { moves: by }) => sum + by[r], v)),
      ),
    }))
    .sort((a, b) => a.missed - b.missed)
    .slice(0, TRIED)
    .map(({ move }) => move);
}
