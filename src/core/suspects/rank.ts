import { alikeTo } from './alike';
import type { Prediction } from './prediction';
import type { Supposed } from './suppositions';

/** A part and how far it is off. */
export interface Culprit {
  id: string;
  factor: number;
}

export interface Suspect {
  /** One part, or two where only both explain the take. */
  parts: Culprit[];
  /** What would explain it just as well, and no take of this net could tell. */
  alike: string[][];
  /** By how much each of those would be off, in their order. */
  alikeParts: Culprit[][];
  /** Of the difference between take and prediction, the part that goes away: 0 to 1. */
  explained: number;
  /** How likely it is, 0 to 1, what is alike included. */
  chance: number;
}

/** What is less likely than this is not listed. */
export const WORTH_NAMING = 0.002;
export const MOST_NAMED = 8;
/** Of the first so many, those that are alike are looked for. */
const LOOKED_ALIKE = 5;

/**
 * What was supposed of one or two parts, likeliest first; what no take of this net could tell from
 * each other is one entry.
 */
export function ranked(
  prediction: Prediction,
  supposed: readonly (Supposed & { chance: number })[],
  explainedBy: (misfit: Float64Array | undefined) => number,
): Suspect[] {
  const sorted = [...supposed].sort((a, b) => b.chance - a.chance);
  // A pair is named only where no part alone is as likely.
  const kept =
    sorted[0]?.culprits.length === 2 ? sorted : sorted.filter((s) => s.culprits.length === 1);
  const taken = new Set<Supposed>();
  const ranking: Suspect[] = [];
  for (const one of kept) {
    if (taken.has(one) || ranking.length >= MOST_NAMED) continue;
    if (ranking.length > 0 && one.chance < WORTH_NAMING) break;
    const { culprits, likely } = one;
    const partOf = (movable: number, x: number): Culprit => ({
      id: prediction.movables[movable].part,
      factor: Math.exp(x),
    });
    const alone = new Float64Array(likely.x.length);
    for (const place of culprits) alone[place] = likely.x[place];
    const alike =
      culprits.length === 1 && ranking.length < LOOKED_ALIKE
        ? alikeTo(prediction, culprits[0], likely.x[culprits[0]])
        : [];
    let chance = one.chance;
    for (const other of kept)
      if (other.culprits.length === 1 && alike.some((a) => a.movable === other.culprits[0])) {
        taken.add(other);
        chance += other.chance;
      }
    ranking.push({
      parts: culprits.map((place) => partOf(place, likely.x[place])),
      alike: alike.map((a) => [prediction.movables[a.movable].part]),
      alikeParts: alike.map((a) => [partOf(a.movable, a.x)]),
      explained: explainedBy(prediction.misfit(alone)),
      chance,
    });
  }
  return ranking.sort((a, b) => b.chance - a.chance);
}
