import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Rules } from '@/core/spread/rules';
import { alikeTo } from './alike';
import { likeliest, squares, type Likely } from './likely';
import { movables } from './movable';
import { DEGREES_PER_DB, noiseOf, roughness, type Noise } from './noise';
import { Prediction } from './prediction';
import { comparable, type Question } from './question';
import { Ordinary } from './scan';
import { supposeMistakes } from './supposed-mistakes';
import { supposeOne, supposeOrdinary, supposeTwo, usualOf, type Supposed } from './suppositions';

export interface SuspectsRequest {
  circuit: Circuit;
  probe: string;
  take: MeasuredCurve;
  /** How far parts may be off, by kind or id. */
  rules?: Rules;
  /** Parts that are not of the board: what stands at both ends of it. */
  fixed?: ReadonlySet<string>;
  /** How far each level is off by itself, dB, where that is known. */
  noiseDb?: number;
}

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

export interface Mistake {
  kind: string;
  parts: readonly string[];
  explained: number;
  chance: number;
  /** Of a mistake by any amount: what it comes to. */
  value?: { field: string; value: number };
  alike: { kind: string; parts: readonly string[] }[];
}

export interface Findings {
  ranking: Suspect[];
  mistakes: Mistake[];
  /** By how much the take stands above the prediction, dB. */
  gainDb: number;
  /** That every part is within what is ordinary. */
  ordinary: { chance: number; explained: number; enough: boolean };
  /** How far a point of the take is off by itself, dB. */
  noiseDb: number;
  /** Parts that this take says nothing of. */
  unseen: string[];
}

/** A take has more points than parts can be told by. */
const LEAST_POINTS = 5;
/** More points of a take than these tell nothing new of a dozen parts. */
const MOST_POINTS = 200;
/** What is thought likely beforehand: nothing wrong, one part, two parts, a classic mistake. */
const BEFOREHAND = { ordinary: 0.1, one: 0.55, two: 0.05, mistake: 0.3 };
/** What is less likely than this is not listed. */
const WORTH_NAMING = 0.002;
const MOST_NAMED = 8;
/** Of the first so many, those that are alike are looked for. */
const LOOKED_ALIKE = 5;
/** Differences of a point that are larger than this count less and less. */
const LARGE_DB = 6;
/** A mistake is looked at about what so many suppositions of one part say of all the others. */
const STARTS = 2;
/** How far a value may be off, one standard deviation, where only the noise is asked for. */
const ANYWHERE = 0.5;
/** A part that changes the whole take by less than this for a factor e is not seen, in units of the noise. */
const UNSEEN = 0.3;

/**
 * Which part is off, by how much, and how sure that is: every supposition is weighed by how likely it
 * makes the take, averaged over what noise, the unknown level and the tolerances of all the other parts
 * can do, so that a difference is held against a part only if nothing ordinary explains it.
 *
 * @throws ReedError `range` for a take of too few points, `circuit` for a net that is not there
 */
export function findSuspects(request: SuspectsRequest): Findings {
  const question = questionOf(request);
  const { circuit, probe, take, noise, rules, fixed } = question;
  const analysis = comparable(circuit);
  const list = movables(analysis, rules, fixed);
  const prediction = new Prediction(analysis, probe, list, take, noise);
  const ordinary = supposeOrdinary(prediction);
  if (!ordinary) throw unsolved(probe);
  const ones = supposeOne(prediction, ordinary);
  const twos = supposeTwo(prediction, ones);
  const nominalCurve = prediction.sloped(new Float64Array(list.length));
  if (!nominalCurve) throw unsolved(probe);
  const byOne = [...ones].sort((a, b) => b.likely.evidence - a.likely.evidence);
  const wrong = supposeMistakes(
    question,
    new Ordinary(nominalCurve, usualOf(prediction)),
    byOne
      .slice(0, STARTS)
      .map(({ likely }) => new Map(list.map(({ part }, i) => [part, likely.x[i]]))),
  );

  const suspects = list.filter((m) => m.suspect).length;
  const pairs = Math.max(1, (suspects * (suspects - 1)) / 2);
  const weights = [
    ordinary.evidence + Math.log(BEFOREHAND.ordinary),
    ...ones.map((s) => s.likely.evidence + Math.log(BEFOREHAND.one / Math.max(1, suspects))),
    ...twos.map((s) => s.likely.evidence + Math.log(BEFOREHAND.two / pairs)),
    ...wrong.map((s) => s.likely.evidence + Math.log(BEFOREHAND.mistake / (suspects * 4))),
  ];
  const chances = sharesOf(weights);
  const nominal = difference(nominalCurve.values, noise);
  const explainedBy = (misfit: Float64Array | undefined) =>
    misfit && nominal > 0 ? Math.max(0, 1 - difference(misfit, noise) / nominal) : 0;
  const supposed = [...ones, ...twos].map((s, i) => ({ ...s, chance: chances[1 + i] }));
  const ranking = ranked(prediction, supposed, explainedBy);
  return {
    ranking,
    mistakes: wrong
      .map(({ kind, parts, alone, prediction: its, value, alike }, i) => ({
        kind,
        parts,
        explained: explainedBy(its.misfit(alone)),
        chance: chances[1 + ones.length + twos.length + i],
        ...(value ? { value } : {}),
        alike,
      }))
      .filter((m) => m.chance >= WORTH_NAMING)
      .slice(0, MOST_NAMED),
    gainDb: prediction.gainDb(bestOf(ordinary, supposed, chances)),
    ordinary: {
      chance: chances[0],
      explained: explainedBy(prediction.misfit(ordinary.x)),
      enough: chances[0] >= Math.max(...chances.slice(1)),
    },
    noiseDb: noise.levelDb[0],
    unseen: unseenBy(prediction),
  };
}

/** How much there is to explain. A null that lies a little aside is a difference of few points, however large. */
function difference(misfit: Float64Array, { levelDb, phaseDegrees: degrees }: Noise): number {
  return misfit.reduce((sum, v, k) => {
    const k2 = k - levelDb.length;
    const db = k2 < 0 ? v * levelDb[k] : (v * degrees![k2]) / DEGREES_PER_DB;
    return sum + Math.log1p((db / LARGE_DB) ** 2);
  }, 0);
}

const unsolved = (probe: string) =>
  new ReedError('circuit', `Nothing arrives at “${probe}”: probe a net that the source reaches.`, {
    net: probe,
  });

function bestOf(
  ordinary: Likely,
  supposed: readonly (Supposed & { chance: number })[],
  [ofOrdinary]: readonly number[],
): Float64Array {
  let best = { chance: ofOrdinary, x: ordinary.x };
  for (const { chance, likely } of supposed)
    if (chance > best.chance) best = { chance, x: likely.x };
  return best.x;
}

/** Numbers that add up to one, in the proportions of their exponentials. */
function sharesOf(logs: readonly number[]): number[] {
  const most = Math.max(...logs);
  const shares = logs.map((v) => Math.exp(v - most));
  const all = shares.reduce((a, b) => a + b, 0);
  return shares.map((v) => v / all);
}

function ranked(
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

function unseenBy(prediction: Prediction): string[] {
  const nominal = prediction.sloped(new Float64Array(prediction.movables.length));
  if (!nominal) return [];
  return prediction.movables.flatMap(({ part, suspect }, i) =>
    suspect && squares(nominal.columns[i]) < UNSEEN ** 2 ? [part] : [],
  );
}

/** The question with its noise, estimated where it is not known. */
function questionOf({
  circuit,
  probe,
  take,
  rules = {},
  fixed = new Set(),
  noiseDb,
}: SuspectsRequest): Question {
  const points = take.frequenciesHz.length;
  if (points < LEAST_POINTS)
    throw new ReedError(
      'range',
      `The take has ${points} ${points === 1 ? 'point' : 'points'}: with fewer than ${LEAST_POINTS} no part can be told from another. Measure at more frequencies.`,
    );
  const thin = thinned(take);
  const known = { circuit, probe, take: thin, rules, fixed };
  const count = thin.frequenciesHz.length;
  if (noiseDb !== undefined)
    return {
      ...known,
      noise: {
        levelDb: new Float64Array(count).fill(noiseDb),
        ...(thin.phaseDegrees
          ? { phaseDegrees: new Float64Array(count).fill(noiseDb * DEGREES_PER_DB) }
          : {}),
      },
    };
  return { ...known, noise: estimated(known) };
}

/** A take of at most so many points, over the same span. */
function thinned(take: MeasuredCurve): MeasuredCurve {
  const every = take.frequenciesHz.length / MOST_POINTS;
  if (every <= 1) return take;
  const places = Array.from({ length: MOST_POINTS }, (_, k) => Math.floor(k * every));
  return {
    frequenciesHz: places.map((k) => take.frequenciesHz[k]),
    levelDb: places.map((k) => take.levelDb[k]),
    ...(take.phaseDegrees ? { phaseDegrees: places.map((k) => take.phaseDegrees![k]) } : {}),
  };
}

/**
 * The noise of a take: what is left when every value may be anything, or how far points lie off their
 * neighbours, whichever is less; a circuit that was wired wrong leaves much of the first, and one of
 * sharp bends much of the second.
 */
function estimated({ circuit, probe, take, rules, fixed }: Omit<Question, 'noise'>): Noise {
  const points = take.frequenciesHz.length;
  const unit: Noise = {
    levelDb: new Float64Array(points).fill(1),
    ...(take.phaseDegrees ? { phaseDegrees: new Float64Array(points).fill(DEGREES_PER_DB) } : {}),
  };
  const analysis = comparable(circuit);
  const list = movables(analysis, rules, fixed);
  const prediction = new Prediction(analysis, probe, list, take, unit);
  const expected: Noise = {
    levelDb: unit.levelDb.map((v) => v * 0.1),
    ...(unit.phaseDegrees ? { phaseDegrees: unit.phaseDegrees.map((v) => v * 0.1) } : {}),
  };
  const start = new Float64Array(list.length);
  const found = likeliest(
    new Prediction(analysis, probe, list, take, expected),
    list.map(() => ANYWHERE),
    start,
  );
  const misfit = prediction.misfit(found?.x ?? start);
  if (!misfit) throw unsolved(probe);
  const part = (from: number, scale: number) => {
    const own = misfit.subarray(from, from + points);
    const rough = roughness(own);
    const free = Math.max(1, points - Math.min(list.length + 1, points / 2));
    const settled = Math.min(squares(own), rough ** 2 * free);
    return { squares: settled * scale ** 2, free };
  };
  return noiseOf(points, part(0, 1), take.phaseDegrees ? part(points, DEGREES_PER_DB) : undefined);
}
