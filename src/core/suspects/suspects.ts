import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Rules } from '@/core/spread/rules';
import { plainlyOf } from './estimate-noise';
import { squares } from './belief';
import { type Likely } from './likely';
import { evenNoise } from './noise';
import { predictionOf, type Prediction } from './prediction';
import { comparable, roughly, thinned, unsolved, type Question, type View } from './question';
import { nextStep, type NextStep, type Possibility } from './next-step';
import { MOST_NAMED, ranked, WORTH_NAMING, type Culprit, type Suspect } from './rank';
import { supposeMistakes } from './supposed-mistakes';
import { supposeOne, supposeOrdinary, supposeTwo, usualOf, type Supposed } from './suppositions';

/** A take, and what it is of. */
export interface TakeRequest {
  circuit: Circuit;
  probe: string;
  take: MeasuredCurve;
  /** How far parts may be off, by kind or id. */
  rules?: Rules;
  /** Parts that are not of the board: what stands at both ends of it. */
  fixed?: ReadonlySet<string>;
  /** How far each level is off by itself, dB, where that is known. */
  noiseDb?: number;
  /** How well the level that it was taken at is known, dB, one standard deviation; nobody knows it where nothing is said. */
  gainSdDb?: number;
}

export interface SuspectsRequest extends TakeRequest {
  /** Other takes of the same board, at other nets or of another kind, that are weighed with it. */
  beside?: readonly TakeRequest[];
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
  /** The one measurement that would settle what is not settled; null where nothing is open. */
  next: NextStep | null;
  /** Parts that this take says nothing of. */
  unseen: string[];
}

/** A take has more points than parts can be told by. */
const LEAST_POINTS = 5;
/** More points of a take than these tell nothing new of a dozen parts. */
const MOST_POINTS = 200;
/** And for a first look these are enough. */
const ROUGH_POINTS = 61;
/** What is thought likely beforehand: nothing wrong, one part, two parts, a classic mistake. */
const BEFOREHAND = { ordinary: 0.1, one: 0.55, two: 0.05, mistake: 0.3 };
/** Differences of a point that are larger than this count less and less. */
const LARGE_DB = 6;
/** What is less likely is as good as settled; and no more than so many are told apart at once. */
const STILL_POSSIBLE = 0.03;
const MOST_POSSIBLE = 3;
/** Off by less than this, as a logarithm, is hardly off. */
const HARDLY = 0.02;
/** How far a part is off that was not looked at by itself is known to this, as a logarithm. */
const KNOWN = 0.03;
/** A mistake that explains less than this of the difference is not what happened. */
const LEAST_EXPLAINED = 0.2;
/** A mistake is looked at about what so many suppositions of one part say of all the others. */
const STARTS = 2;
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
  const rough = roughly(question, Math.ceil(ROUGH_POINTS / Math.sqrt(question.length)));
  const prediction = predictionOf(
    question,
    question.map(({ circuit }) => comparable(circuit)),
  );
  const { movables: list } = prediction;
  const roughPrediction = prediction.against(rough);
  const exact = new Float64Array(list.length);
  const nominalCurve = prediction.sloped(exact);
  const roughCurve = roughPrediction.sloped(exact);
  const ordinary = supposeOrdinary(prediction);
  if (!ordinary || !nominalCurve || !roughCurve) throw unsolved(request.probe);
  const ones = supposeOne(prediction, roughPrediction, ordinary);
  const twos = supposeTwo(prediction, ones);
  const byOne = [...ones].sort((a, b) => b.likely.evidence - a.likely.evidence);
  const wrong = supposeMistakes(
    question,
    rough,
    roughCurve,
    usualOf(prediction),
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
  const inDb = prediction.inDb();
  const nominal = difference(nominalCurve.values, inDb);
  const explainedBy = (misfit: Float64Array | undefined) =>
    misfit && nominal > 0 ? Math.max(0, 1 - difference(misfit, inDb) / nominal) : 0;
  const supposed = [...ones, ...twos].map((s, i) => ({ ...s, chance: chances[1 + i] }));
  const ranking = ranked(prediction, supposed, explainedBy);
  const known = new Map(
    ones.map(({ culprits: [i], likely }) => [list[i].part, Math.sqrt(likely.variances[i])]),
  );
  const gainDb = prediction.gainDb(bestOf(ordinary, supposed, chances));
  return {
    ranking,
    next: nextAfter(
      question,
      prediction,
      stillPossible(ranking, chances[0]),
      (part) => known.get(part) ?? KNOWN,
    ),
    mistakes: wrong
      .map(({ kind, parts, alone, prediction: its, value, alike }, i) => ({
        kind,
        parts,
        explained: explainedBy(its.misfit(alone)),
        chance: chances[1 + ones.length + twos.length + i],
        ...(value ? { value } : {}),
        alike,
      }))
      .filter((m) => m.chance >= WORTH_NAMING && m.explained >= LEAST_EXPLAINED)
      .slice(0, MOST_NAMED),
    gainDb,
    ordinary: {
      chance: chances[0],
      explained: explainedBy(prediction.misfit(ordinary.x)),
      enough: chances[0] >= Math.max(...chances.slice(1)),
    },
    noiseDb: question[0].noise.levelDb[0],
    unseen: unseenBy(prediction),
  };
}

/** How much there is to explain. A null that lies a little aside is a difference of few points, however large. */
const difference = (misfit: Float64Array, inDb: Float64Array): number =>
  misfit.reduce((sum, v, k) => sum + Math.log1p(((v * inDb[k]) / LARGE_DB) ** 2), 0);

/** The measurement that would settle what is open, beside the first take of a level; of none, without power. */
function nextAfter(
  question: Question,
  prediction: Prediction,
  possible: readonly Possibility[],
  knownTo: (part: string) => number,
): NextStep | null {
  const leveled = question.findIndex(({ gainSdDb }) => gainSdDb === Infinity);
  const first = Math.max(0, leveled);
  const { circuit, probe, take } = question[first];
  return nextStep({
    circuit,
    probe,
    movables: prediction.movablesIn(first),
    possible,
    frequenciesHz: leveled < 0 ? [] : take.frequenciesHz,
    gainOf: (off) =>
      prediction.gainDb(
        Float64Array.from(prediction.movables, ({ part }) => off.get(part) ?? 0),
        first,
      ),
    knownTo,
  });
}

/**
 * What is to be told apart next: what is alike to the first, or else what comes near it. A part that is
 * hardly off is no other possibility than that all is ordinary.
 */
function stillPossible(ranking: readonly Suspect[], ordinary: number): Possibility[] {
  const [first] = ranking as readonly (Suspect | undefined)[];
  if (!first) return [];
  const of = (parts: readonly Culprit[]): Possibility =>
    new Map(parts.map(({ id, factor }) => [id, Math.log(factor)]));
  if (first.alike.length > 0) return [first.parts, ...first.alikeParts].map(of);
  const near = ranking
    .filter((s) => s.chance >= STILL_POSSIBLE && s.parts.some(isOff))
    .slice(0, MOST_POSSIBLE);
  return [...near.map((s) => of(s.parts)), ...(ordinary >= STILL_POSSIBLE ? [of([])] : [])];
}

const isOff = ({ factor }: Culprit): boolean => Math.abs(Math.log(factor)) >= HARDLY;

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

function unseenBy(prediction: Prediction): string[] {
  const nominal = prediction.sloped(new Float64Array(prediction.movables.length));
  if (!nominal) return [];
  return prediction.movables.flatMap(({ part, suspect }, i) =>
    suspect && squares(nominal.columns[i]) < UNSEEN ** 2 ? [part] : [],
  );
}

/** The takes with their noise, estimated where it is not known. */
function questionOf(request: SuspectsRequest): Question {
  const all = [request, ...(request.beside ?? [])];
  const most = Math.ceil(MOST_POINTS / all.length);
  return all.map(
    ({ circuit, probe, take, rules = {}, fixed = new Set<string>(), ...known }): View => {
      checkPoints(take);
      const { noiseDb, gainSdDb = Infinity } = known;
      const plain = { circuit, probe, take: thinned(take, most), gainSdDb, rules, fixed };
      const noise =
        noiseDb === undefined
          ? plainlyOf(plain).noise
          : evenNoise(plain.take.frequenciesHz.length, noiseDb, take.phaseDegrees !== undefined);
      return { ...plain, noise };
    },
  );
}

function checkPoints({ frequenciesHz }: MeasuredCurve): void {
  const points = frequenciesHz.length;
  if (points < LEAST_POINTS)
    throw new ReedError(
      'range',
      `The take has ${points} ${points === 1 ? 'point' : 'points'}: with fewer than ${LEAST_POINTS} no part can be told from another. Measure at more frequencies.`,
    );
  const falls = frequenciesHz.findIndex((hz, k) => !(hz > (frequenciesHz[k - 1] ?? 0)));
  if (falls >= 0)
    throw new ReedError('range', `Point ${falls + 1} of the take is not above the one before it.`);
}
