import { likeliest, likeliestFrom, type Likely } from './likely';
import type { Prediction } from './prediction';
import { placesOf } from './scan';

/** How far a culprit may be off: one standard deviation of the logarithm of its value. */
export const CULPRIT_SD = 1;
/** Suspects that are worked out, of those that look best from afar and from near. */
const ONES_TRIED = 9;
/** Where ordinary deviations leave more than this, a point and in units of the noise, they lead nowhere. */
const HOPELESS = 30;
/** Pairs that are worked out, of those that look best. */
const PAIRS_TRIED = 10;
/** And none that promises to make the take less likely than one part does by this, as a logarithm. */
const HOPELESS_PAIR = 12;

/** That one or two values are off by any amount, and all others by what is ordinary. */
export interface Supposed {
  /** By place among the movables. */
  culprits: readonly number[];
  likely: Likely;
}

export const usualOf = (prediction: Prediction): number[] =>
  prediction.movables.map((m) => m.usual);

const sdsWith = (usual: readonly number[], culprits: readonly number[]): number[] =>
  usual.map((sd, i) => (culprits.includes(i) ? CULPRIT_SD : sd));

/** That nothing is off but by what is ordinary. */
export function supposeOrdinary(prediction: Prediction): Likely | undefined {
  const usual = usualOf(prediction);
  return likeliest(prediction, usual, new Float64Array(usual.length));
}

/**
 * That one suspect alone is off: of those that could be.
 *
 * @param rough the same of fewer points, by which places to begin at are found
 */
export function supposeOne(
  prediction: Prediction,
  rough: Prediction,
  ordinary: Likely,
): Supposed[] {
  const usual = usualOf(prediction);
  const exact = new Float64Array(usual.length);
  const nominal = rough.sloped(exact);
  const looked = prediction.movables.flatMap(({ suspect }, i) => {
    if (!suspect) return [];
    const places = nominal ? placesOf(rough, nominal, usual, i) : [];
    const left = places.length > 0 ? places[0].left : Infinity;
    return [{ i, places, left, promise: ifFreed(ordinary, i, usual[i]).promise }];
  });
  // Those that explain most at any distance, and those that would from where ordinary parts end.
  const far = [...looked].sort((a, b) => a.left - b.left).slice(0, ONES_TRIED);
  const near = [...looked].sort((a, b) => b.promise - a.promise).slice(0, ONES_TRIED);
  return looked.flatMap((one): Supposed[] => {
    if (!far.includes(one) && !near.includes(one)) return [];
    const sds = sdsWith(usual, [one.i]);
    const starts: Float64Array[] = one.places.map(({ at }) => {
      const x = exact.slice();
      x[one.i] = at;
      return x;
    });
    if (starts.length === 0 || ordinary.left < HOPELESS * prediction.points)
      starts.push(ordinary.x);
    return best([one.i], likeliestFrom(prediction, sds, starts));
  });
}

/** That two are off: those pairs that the suppositions of one make likely. */
export function supposeTwo(prediction: Prediction, ones: readonly Supposed[]): Supposed[] {
  const usual = usualOf(prediction);
  const likeliestOne = Math.max(...ones.map(({ likely }) => likely.evidence));
  const promising = new Map<string, { pair: [number, number]; promise: number; x: Float64Array }>();
  for (const { culprits, likely } of ones) {
    const [first] = culprits;
    prediction.movables.forEach(({ suspect }, second) => {
      if (!suspect || second === first) return;
      const freed = ifFreed(likely, second, usual[second]);
      const pair: [number, number] = first < second ? [first, second] : [second, first];
      const before = promising.get(pair.join());
      if (before && before.promise >= freed.promise) return;
      const x = likely.x.slice();
      // What is held back by its tolerance goes on as far as the take pulls it.
      x[second] *= freed.farther;
      promising.set(pair.join(), { pair, promise: freed.promise, x });
    });
  }
  return [...promising.values()]
    .sort((a, b) => b.promise - a.promise)
    .slice(0, PAIRS_TRIED)
    .filter(({ promise }) => promise > likeliestOne - HOPELESS_PAIR)
    .flatMap(({ pair, x }) => best(pair, likeliest(prediction, sdsWith(usual, pair), x)));
}

/**
 * The evidence if one value more were free, from the normal distribution that the others leave it:
 * its tolerance divided out of that, and a culprit’s distribution put in instead.
 */
function ifFreed(likely: Likely, i: number, sd: number): { promise: number; farther: number } {
  const variance = likely.variances[i];
  const released = sd ** -2 - CULPRIT_SD ** -2;
  const looser = Math.max(1e-9, 1 - released * variance);
  const mean = likely.x[i];
  return {
    promise:
      likely.evidence +
      Math.log(sd / CULPRIT_SD) -
      Math.log(looser) / 2 +
      (released * mean * mean) / (2 * looser),
    farther: Math.min(20, 1 / looser),
  };
}

const best = (culprits: readonly number[], likely: Likely | undefined): Supposed[] =>
  likely ? [{ culprits, likely }] : [];
