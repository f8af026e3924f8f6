import { ReedError } from '@/core/errors';
import type { SeriesName } from '@/core/quantity/series';
import { namesInCircuit } from '@/core/sheet/path-circuit';
import { drawnParts, withValue } from '@/core/sheet/stage';
import type { Way } from '@/core/sheet/schema';
import type { AcousticEdge, SpeakerDocument, WayTarget } from '@/core/speaker/document';
import type { Achieved } from '@/core/speaker/tune/measure';
import { snap, type Drawer } from '@/core/speaker/tune/snap';
import { hasMainValue, mainValue, SpeakerTrial } from '@/core/speaker/tune/trial';
import type { Tuned } from '@/core/speaker/tune/score';
import { achievedBy, limitsOf, tune } from '@/core/speaker/tune/tune';
import { hasAmplifiers, isActive } from './active';
import { driverEnd, type CrossoverDesign } from './crossover-design';
import { speakerOf } from './speaker-of';

/** What a tuning may change, and what it is to keep to. */
export interface TuneWish {
  /** Order of every way’s edges in the air, driver and network together. */
  acousticOrder: number;
  /** How far single ways may lie from that; absent where only the sum counts. */
  wayWithinDb?: number;
  /** How far neighbouring ways may be apart in phase where they meet; absent where that is left open. */
  trackDegrees?: number;
  /** No value goes further than by this factor from where it is. */
  reach?: number;
  /** Leave values alone that were typed. */
  keepTyped: boolean;
  /** Take values as it ends that there are: of the sheet’s series, or of what is at hand. */
  snap: boolean;
  /** What is at hand, in place of the series of its kinds. */
  pieces?: Drawer['pieces'];
  /** Whether drivers may be turned over. */
  polarity: 'kept' | 'any';
  starts: number;
}

export const USUAL_WISH: TuneWish = {
  acousticOrder: 4,
  wayWithinDb: 5,
  keepTyped: false,
  snap: true,
  polarity: 'any',
  starts: 5,
};

/** One way of tuning a crossover that was found. */
export interface TunedCrossover extends Achieved {
  /** Values by way, stage and part. */
  values: { way: string; stage: string; part: string; value: number }[];
  /** Ways whose drivers are turned over. */
  inverted: string[];
}

/** A crossover as a search found it. */
export const withTuning = <D extends { ways: Way[] }>(
  design: D,
  { values, inverted }: Pick<TunedCrossover, 'values' | 'inverted'>,
): D => {
  const valued = withValuesAt(design, values);
  return {
    ...valued,
    ways: valued.ways.map((way) =>
      way.to.is === 'driver' && way.to.inverted !== inverted.includes(way.id)
        ? { ...way, to: { ...way.to, inverted: inverted.includes(way.id) } }
        : way,
    ),
  };
};

export interface TuneResult {
  before: Achieved;
  /** The best first. */
  found: TunedCrossover[];
}

export interface TuneProgress {
  done: number;
  of: number;
}

/** Limits of values that are built and bought: behind an amplifier, and of resistors at line level. */
const LIMITS = {
  resistor: { least: 0.1, most: 470 },
  capacitor: { least: 0.1e-6, most: 1e-3 },
  inductor: { least: 10e-6, most: 30e-3 },
} as const;
const LINE_LIMITS = { least: 100, most: 1e6 };

/** Results that are told, at most; a start that ended where another did is not told again. */
const TOLD = 3;
const SAME = 0.02;
/** Starts from which each polarity is judged, and polarities that are then gone on with. */
const SEARCH = { looks: 2, goneOn: 2, starts: Infinity, widths: [3, 1] } as const;
/** Sections of op-amps do not load each other: their textbook start is near, and they have many values. */
const ACTIVE_SEARCH = { looks: 1, goneOn: 1, starts: 1, widths: [1, 1] } as const;

interface Place {
  id: string;
  way: string;
  stage: string;
  part: string;
  /** Whether it stands ahead of an amplifier of its way's own. */
  atLine: boolean;
}

/** Where one search ended, and with which ways turned over. */
interface Ended {
  design: CrossoverDesign;
  trial: SpeakerTrial;
  result: Tuned;
}

/**
 * Tune a crossover on its true circuit to a flat sum, the amplifier’s least load, and ways of given
 * order; each result in values that there are, as the sheet’s series have them. Ways may be turned
 * over: each polarity is looked at first, and the best are gone on with. It halts after every search
 * to say how far it has come; whoever does not go on has stopped it.
 *
 * @throws ReedError for a crossover that cannot be solved, or of which nothing may change
 */
export function* tuningOf(
  design: CrossoverDesign,
  wish: TuneWish,
): Generator<TuneProgress, TuneResult> {
  const places = freePlaces(design, wish.keepTyped);
  if (places.length === 0)
    throw new ReedError('design', 'No value may change: all parts were typed, or there are none.');
  const documentOf = (of: CrossoverDesign): SpeakerDocument => ({
    ...speakerOf(withPerfectOpAmps(of)),
    target: targetOf(of, wish, places),
  });
  const achieved = (of: CrossoverDesign) =>
    achievedBy({ ...speakerOf(of), target: targetOf(of, wish, places) }, !of.ways.every(isActive));
  const before = achieved(design);
  const looks = polaritiesOf(design, wish.polarity);
  const { looks: starts, goneOn, ...plan } = hasAmplifiers(design) ? ACTIVE_SEARCH : SEARCH;
  const of = looks.length + goneOn + TOLD;
  let done = 0;
  const search = (look: CrossoverDesign, starts: number, seed: number): Ended[] => {
    const trial = new SpeakerTrial(documentOf(look));
    const limits = limitsFor(trial, places, wish.reach);
    const results = tune(trial, { starts, seed, limits });
    return results.map((result) => ({ design: look, trial, result }));
  };
  const byScore = (a: Ended, b: Ended) => a.result.score - b.result.score;
  const looked: Ended[][] = [];
  for (const look of looks) {
    looked.push(search(look, starts, 1).sort(byScore));
    yield { done: ++done, of };
  }
  looked.sort(([a], [b]) => byScore(a, b));
  const found = looked.flat();
  for (const [best] of looked.slice(0, goneOn)) {
    found.push(...search(best.design, Math.min(plan.starts, wish.starts), 2));
    yield { done: ++done, of };
  }
  found.sort(byScore);
  const distinct = found.filter(
    (f, i) => !found.slice(0, i).some((o) => Math.abs(o.result.score - f.result.score) < SAME),
  );
  const told: TunedCrossover[] = [];
  for (const ended of distinct.slice(0, TOLD)) {
    told.push(
      finish(ended, plan.widths[told.length === 0 ? 0 : 1], { places, wish, documentOf, achieved }),
    );
    yield { done: ++done, of };
  }
  return { before, found: told.sort((a, b) => a.withinDb - b.withinDb) };
}

/** The same in one go. @param progress told after every search */
export function tuneCrossover(
  design: CrossoverDesign,
  wish: TuneWish,
  progress?: (step: TuneProgress) => void,
): TuneResult {
  const search = tuningOf(design, wish);
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
    progress?.(step.value);
  }
}

/**
 * While values are searched op-amps are perfect: at sound frequencies the true ones differ from that by
 * less than values do from what is bought, and their circuits take several times as long to solve.
 * What is told of a result is that of the true ones.
 */
const withPerfectOpAmps = (design: CrossoverDesign): CrossoverDesign => ({
  ...design,
  parts: { ...design.parts, opAmp: { name: 'ideal', model: 'ideal' } },
});

/** What values may become: those that are built and bought, and within reach of where they are. */
const limitsFor = (trial: SpeakerTrial, places: readonly Place[], reach = Infinity) =>
  Object.fromEntries(
    trial.free.map((part) => {
      const { kind, value } = mainValue(part);
      const atLine = places.find(({ id }) => id === part.id)!.atLine;
      const { least, most } = atLine ? LINE_LIMITS : LIMITS[kind];
      return [
        part.id,
        { least: Math.max(least, value / reach), most: Math.min(most, value * reach) },
      ];
    }),
  );

/** The crossover with its ways turned over in every way, or as it is. */
function polaritiesOf(design: CrossoverDesign, polarity: TuneWish['polarity']): CrossoverDesign[] {
  if (polarity === 'kept') return [design];
  const patterns = 2 ** (design.ways.length - 1);
  return Array.from({ length: patterns }, (_, pattern) => ({
    ...design,
    ways: design.ways.map((way, i) =>
      i > 0 && (pattern >> (i - 1)) & 1
        ? { ...way, to: { ...way.to, inverted: !driverEnd(way).inverted } as Way['to'] }
        : way,
    ),
  }));
}

/**
 * A coil’s resistance follows its value, and was held while values were searched: once more from
 * there, then to values that there are.
 */
function finish(
  { design, trial, result }: Ended,
  width: number,
  {
    places,
    wish,
    documentOf,
    achieved,
  }: {
    places: readonly Place[];
    wish: TuneWish;
    documentOf: (of: CrossoverDesign) => SpeakerDocument;
    achieved: (of: CrossoverDesign) => Achieved;
  },
): TunedCrossover {
  const tuned = withTuned(design, places, trial, result.x);
  const next = new SpeakerTrial(documentOf(tuned));
  // From the values that the search began at, not from those that it found.
  const limits = limitsFor(trial, places, wish.reach);
  const [best] = tune(next, { starts: 1, limits });
  const box = limitsOf(next, { limits });
  const x = wish.snap ? snap(next, best, drawerOf(design, wish), box, width).x : best.x;
  const values = valuesOfTrial(places, next, x);
  return {
    ...achieved(withValuesAt(tuned, values)),
    values,
    inverted: design.ways.filter((way) => driverEnd(way).inverted).map((way) => way.id),
  };
}

/** The load that a level trim is designed into: the amplifier's own, and not to be chosen. */
const TRIM_LOAD = 'RL';

/**
 * The parts of a crossover whose values may change. Among op-amps capacitors stay as they were chosen:
 * the resistors alone bring every edge and Q about, in finer steps.
 */
function freePlaces(design: CrossoverDesign, keepTyped: boolean): Place[] {
  return design.ways.flatMap((way, w) => {
    const nameOf = namesInCircuit(design, w);
    const atLine = isActive(way);
    return way.stages
      .filter((stage) => !stage.bypassed)
      .flatMap((stage) => {
        const tunable = new Set(
          drawnParts(stage).flatMap(({ id, kind }) =>
            (atLine ? kind === 'resistor' && id !== TRIM_LOAD : hasMainValue(kind)) ? [id] : [],
          ),
        );
        return Object.entries(stage.parts).flatMap(([part, { value, chosen }]) =>
          value === undefined ||
          !tunable.has(part) ||
          chosen === 'known' ||
          (keepTyped && chosen === 'hand')
            ? []
            : [{ id: nameOf(stage, part), way: way.id, stage: stage.id, part, atLine }],
        );
      });
  });
}

function targetOf(
  design: CrossoverDesign,
  { acousticOrder, wayWithinDb, trackDegrees }: TuneWish,
  places: readonly Place[],
): SpeakerDocument['target'] {
  const { crossover, ways } = design;
  const { fromHz, toHz, withinDb, splitsHz, alignment } = crossover;
  // Behind amplifiers of their own, drivers are loads that no value changes.
  const leastOhms = hasAmplifiers(design) ? 0 : crossover.leastOhms;
  const shape =
    alignment === 'butterworth' || alignment === 'bessel' || acousticOrder % 2 === 1
      ? alignment === 'bessel'
        ? 'bessel'
        : 'butterworth'
      : 'linkwitz-riley';
  const edge = (hz: number): AcousticEdge => ({ shape, order: acousticOrder, hz });
  // A helper behind the bands has no edges to keep to.
  const bands = ways.slice(0, splitsHz.length + 1);
  const shaped: WayTarget[] = bands.map((way, i) => ({
    driver: way.id,
    ...(i > 0 ? { highPass: edge(splitsHz[i - 1]) } : {}),
    ...(i < splitsHz.length ? { lowPass: edge(splitsHz[i]) } : {}),
    withinDb: wayWithinDb ?? 100,
  }));
  return {
    fromHz,
    toHz,
    withinDb,
    leastOhms,
    free: places.map((p) => p.id),
    ...(wayWithinDb === undefined ? {} : { ways: shaped }),
    ...(trackDegrees === undefined
      ? {}
      : {
          phases: splitsHz.map((hz, i) => ({
            lower: ways[i].id,
            upper: ways[i + 1].id,
            hz,
            withinDegrees: trackDegrees,
          })),
        }),
  };
}

/** The sheet’s series, and what is at hand, by kind. */
function drawerOf({ parts }: CrossoverDesign, { pieces }: TuneWish): Drawer {
  const named = (series: SeriesName | 'exact') => (series === 'exact' ? undefined : series);
  return {
    series: Object.fromEntries(
      Object.entries({
        resistor: named(parts.resistors),
        capacitor: named(parts.capacitors),
        inductor: named(parts.inductors),
      }).filter(([, series]) => series !== undefined),
    ),
    ...(pieces ? { pieces } : {}),
  };
}

const valuesOfTrial = (
  places: readonly Place[],
  trial: SpeakerTrial,
  x: Float64Array,
): TunedCrossover['values'] => {
  const { network } = trial.with(x);
  return places.map(({ id, way, stage, part }) => ({
    way,
    stage,
    part,
    value: mainValue(network.find((p) => p.id === id)!).value,
  }));
};

const withTuned = (
  design: CrossoverDesign,
  places: readonly Place[],
  trial: SpeakerTrial,
  x: Float64Array,
): CrossoverDesign => withValuesAt(design, valuesOfTrial(places, trial, x));

/** A crossover with other values of some parts. */
export function withValuesAt<D extends { ways: Way[] }>(
  design: D,
  values: TunedCrossover['values'],
): D {
  return {
    ...design,
    ways: design.ways.map((way) => ({
      ...way,
      stages: way.stages.map((stage) =>
        values
          .filter((v) => v.way === way.id && v.stage === stage.id)
          .reduce((changed, { part, value }) => withValue(changed, part, value, 'fit'), stage),
      ),
    })),
  };
}
