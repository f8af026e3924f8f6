import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { squares } from './belief';
import { likeliestFrom, type Likely } from './likely';
import { MISTAKES } from '@/core/mistakes';
import type { Mistaken } from '@/core/mistakes/mistake';
import type { Movable } from './movable';
import { predictionOf, type Prediction, type SlopedCurve } from './prediction';
import { Ordinary, placesOf } from './scan';
import { comparable, type Question } from './question';
import { usualOf } from './suppositions';

/** Of a mistake by any amount: how far from where it is looked for, as a logarithm. */
const FREE_SD = 2;
/** Of the mistakes that look best, so many are looked into, and so many worked out. */
const LOOKED_INTO = 24;
const WORKED_OUT = 8;
/** Curves that lie closer than this, in units of the noise, are one mistake under two names. */
const ALIKE = 0.5;

/** That the circuit was got wrong in a classic way. */
export interface SupposedMistake {
  kind: string;
  parts: readonly string[];
  likely: Likely;
  prediction: Prediction;
  /** Logarithms by movable with nothing but the mistake. */
  alone: Float64Array;
  /** What a mistake by any amount comes to. */
  value?: { field: string; value: number };
  /** Other names of the same. */
  alike: { kind: string; parts: readonly string[] }[];
}

/** A mistake as it is in the circuit of each take. */
interface Everywhere extends Omit<Mistaken, 'circuit'> {
  kind: string;
  circuits: readonly Circuit[];
}

/** A mistake at first sight: the curve that it makes, all else exact. */
interface Glimpse {
  mistaken: Everywhere;
  prediction: Prediction;
  /** The place of what is free among the movables, and where it is looked for. */
  free?: { place: number; at: number };
  misfit: Float64Array;
  promise: number;
}

/**
 * Every classic mistake that the circuit allows, and how likely it makes the take; likeliest first.
 *
 * @param rough the same question of fewer points, for a first look
 * @param curve of the circuit as it should be, at those points
 * @param usual how far ordinary values are off
 * @param starts what the other parts may be like
 */
export function supposeMistakes(
  question: Question,
  rough: Question,
  curve: SlopedCurve,
  usual: readonly number[],
  starts: readonly Deviations[],
): SupposedMistake[] {
  const alikes = question.map(({ circuit }) => new Alikes(circuit));
  const ordinary = new Ordinary(curve, usual);
  const glimpses = mistakesIn(question)
    .flatMap((mistaken) => glimpsed(rough, alikes, ordinary, mistaken) ?? [])
    // What makes no difference explains none.
    .filter(({ misfit }) => apart(misfit, curve.values) >= ALIKE)
    .sort((a, b) => a.promise - b.promise);
  const distinct: Named[] = [];
  for (const glimpse of glimpses) {
    const { kind, parts } = glimpse.mistaken;
    const name = { kind, parts };
    const same = distinct.find((d) => apart(d.misfit, glimpse.misfit) < ALIKE);
    if (same) same.names.push(name);
    else if (distinct.length < LOOKED_INTO) distinct.push({ ...glimpse, names: [name] });
  }
  for (const { names } of distinct) names.sort((a, b) => rankOf(a.kind) - rankOf(b.kind));
  return distinct
    .map((glimpse) => ({ ...glimpse, promise: promiseOf(glimpse) }))
    .sort((a, b) => a.promise - b.promise)
    .slice(0, WORKED_OUT)
    .flatMap((glimpse) => workedOut(question, glimpse, starts))
    .sort((a, b) => b.likely.evidence - a.likely.evidence);
}

/** Every mistake that a circuit allows, in the circuit of each take; where one has nothing to do with it, as it is. */
function mistakesIn(question: Question): Everywhere[] {
  const highest = Math.max(...question.flatMap(({ take }) => take.frequenciesHz));
  return MISTAKES.flatMap((mistakes) => {
    const found = question.map(({ circuit, probe }) => {
      const counts = new Map<string, number>();
      return new Map(
        [...mistakes.in(circuit, probe, highest)].map((mistaken) => {
          const parts = mistaken.parts.join();
          const nth = counts.get(parts) ?? 0;
          counts.set(parts, nth + 1);
          return [`${parts} ${nth}`, mistaken] as const;
        }),
      );
    });
    const all = new Map(found.flatMap((own) => [...own]));
    return [...all].map(([key, { parts, free }]) => ({
      kind: mistakes.kind,
      parts,
      ...(free ? { free } : {}),
      circuits: question.map(({ circuit }, i) => found[i].get(key)?.circuit ?? circuit),
    }));
  });
}

/** A glimpse with every name that it goes by. */
type Named = Glimpse & { names: { kind: string; parts: readonly string[] }[] };
const rankOf = (kind: string) => MISTAKES.findIndex((m) => m.kind === kind);

/** What is left by tolerances about the mistaken circuit itself. */
function promiseOf({ prediction, free }: Glimpse): number {
  const x = new Float64Array(prediction.movables.length);
  if (free) x[free.place] = free.at;
  const there = prediction.sloped(x);
  return there ? new Ordinary(there, usualOf(prediction)).leaves(there.values) : Infinity;
}

const apart = (a: Float64Array, b: Float64Array) => squares(a.map((v, k) => v - b[k]));

function glimpsed(
  question: Question,
  alikes: readonly Alikes[],
  ordinary: Ordinary,
  mistaken: Everywhere,
): Glimpse | undefined {
  try {
    const analyses = mistaken.circuits.map((circuit, i) => alikes[i].analysisOf(circuit));
    const prediction = predictionOf(question, analyses, (analysis, list) =>
      withFree(analysis, list, mistaken),
    );
    const list = prediction.movables;
    const x = new Float64Array(list.length);
    const place = list.findIndex((m) => m.part === FREE);
    if (place >= 0) {
      const there = prediction.sloped(x);
      const found = there ? placesOf(prediction, there, usualOf(prediction), place, 1) : [];
      if (found.length === 0) return undefined;
      x[place] = found[0].at;
    }
    const misfit = prediction.misfit(x);
    if (!misfit) return undefined;
    return {
      mistaken,
      prediction,
      ...(place >= 0 ? { free: { place, at: x[place] } } : {}),
      misfit,
      promise: ordinary.leaves(misfit),
    };
  } catch (error) {
    // A board that was got wrong so that nothing can be solved is not one that was measured.
    if (error instanceof ReedError) return undefined;
    throw error;
  }
}

/** Analyses of circuits that differ from the first in values share its preparation. */
class Alikes {
  private readonly first: AcAnalysis;

  constructor(circuit: Circuit) {
    this.first = comparable(circuit);
  }

  analysisOf(circuit: Circuit): AcAnalysis {
    const analysis = new AcAnalysis(this.first);
    return analysis.take(circuit) ? analysis : comparable(circuit);
  }
}

/** The name of what moves with a mistake by any amount. */
const FREE = '';

/** What is free moves as one, and by itself no more. */
function withFree(analysis: AcAnalysis, list: Movable[], { free }: Everywhere): Movable[] {
  if (!free) return list;
  const parameters = free.parts.flatMap(
    (id) => analysis.system.places.get(id)?.get(free.field) ?? [],
  );
  return [
    ...list.filter((m) => !m.parameters.some((p) => parameters.includes(p))),
    { part: FREE, parameters, usual: FREE_SD, suspect: false },
  ];
}

function workedOut(
  question: Question,
  { names, mistaken, prediction: rough, free }: Named,
  starts: readonly Deviations[],
): SupposedMistake[] {
  const prediction = rough.against(question);
  const usual = usualOf(prediction);
  const from = (deviations: Deviations) => {
    const x = Float64Array.from(prediction.movables, ({ part }, i) =>
      // What the mistake itself does is no deviation of a part.
      Math.min(2 * usual[i], Math.max(-2 * usual[i], deviations.get(part) ?? 0)),
    );
    if (free) x[free.place] = free.at;
    return x;
  };
  const likely = likeliestFrom(prediction, usual, [NO_DEVIATIONS, ...starts].map(from));
  if (!likely) return [];
  const alone = new Float64Array(usual.length);
  if (free) alone[free.place] = likely.x[free.place];
  const [{ kind, parts }, ...alike] = names;
  return [
    {
      kind,
      parts,
      likely,
      prediction,
      alone,
      alike,
      ...(free && mistaken.free
        ? {
            value: {
              field: mistaken.free.field,
              value: prediction.valueAt(free.place, likely.x[free.place]),
            },
          }
        : {}),
    },
  ];
}

/** How far parts are off, as logarithms, by their ids. */
export type Deviations = ReadonlyMap<string, number>;
const NO_DEVIATIONS: Deviations = new Map();
