import { soundLevels } from '@/core/speaker/sound-levels';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import type { Electrical, SolvedSpeaker } from '@/core/speaker/solved-speaker';
import { evenly, spreadAboutMean, sumLevels } from '@/core/speaker/tune/measure';
import type { Crossover } from '@/core/sheet/crossover-schema';
import { hasAmplifiers } from './active';
import { heatOf } from './load';
import { amplifierLoads, hardest, sizesOf } from './loads';
import { alternating, summed } from './solve';
import type { CrossoverDesign } from './crossover-design';
import type { Load } from './speaker-of';

/** A number that a crossover is judged by, of one layer. */
export interface CrossoverFigure {
  value: number;
  /** Where, for the cursor. */
  atHz?: number;
  /** The part it is about, and what a sine makes of it there. */
  part?: string;
  sineWatts?: number;
  /** Of a load: its phase there, and the resistance that is as hard on the amplifier at its hardest. */
  degrees?: number;
  hardest?: { ohms: number; atHz: number };
}

export const CROSSOVER_READINGS = ['sum', 'impedance', 'phase', 'null', 'dip', 'heat'] as const;
export type CrossoverReadingId = (typeof CROSSOVER_READINGS)[number];
export type CrossoverFigures = Record<CrossoverReadingId, CrossoverFigure | null>;

/** What is wanted where nothing is said. */
export const USUAL_WANTED = {
  phaseApartDegrees: 30,
  nullDb: 20,
  dipDb: 6,
  resistorWatts: 5,
} as const;
/** Degrees up at which a dip is looked for. */
export const DIP_UP = 15;

/** Where everything that is looked at over the whole band is looked at. */
const WHOLE = { fromHz: 20, toHz: 20_000, points: 361 };

/**
 * The figures of a crossover as it is solved.
 *
 * @param load of nominal loads no heat and no dip is told: nothing gets hot or stands apart
 * @param seen what is solved already: it serves again where it was looked at over the same frequencies
 */
export function crossoverFigures(
  speaker: SolvedSpeaker,
  design: Pick<CrossoverDesign, 'ways' | 'crossover'>,
  load: Load = 'true',
  seen?: Electrical,
): CrossoverFigures {
  const { crossover } = design;
  const hz = evenly(WHOLE.fromHz, WHOLE.toHz, WHOLE.points);
  const electrical = seen?.frequenciesHz === hz ? seen : speaker.electrical(hz);
  const { sum, ways } = speaker.sound(electrical);
  const band = evenly(crossover.fromHz, crossover.toHz, BAND_POINTS);
  return {
    sum: { value: spreadAboutMean(sumLevels(speaker, band)) },
    impedance: amplifierLoads(design, speaker, electrical)
      .map(({ ohms }) => leastLoad(ohms, hz))
      .reduce((a, b) => (b.value < a.value ? b : a)),
    ...atSplits(speaker, crossover.splitsHz, { hz, ways }),
    dip: load === 'true' ? dipUp(speaker, electrical, soundLevels(sum), crossover) : null,
    heat: load === 'true' && !hasAmplifiers(design) ? heatOf(speaker, crossover) : null,
  };
}

const BAND_POINTS = 241;

/** The least of a load, by the parabola through the lowest point and its neighbours. */
function leastLoad(z: ComplexTrace, hz: Float64Array): CrossoverFigure {
  const sizes = sizesOf(z);
  const at = leastPlace(sizes);
  const hard = hardest(z);
  const worst = leastPlace(hard);
  const more = {
    degrees: (Math.atan2(z.im[at], z.re[at]) * 180) / Math.PI,
    hardest: { ohms: hard[worst], atHz: hz[worst] },
  };
  if (at === 0 || at === sizes.length - 1) return { value: sizes[at], atHz: hz[at], ...more };
  const [a, b, c] = [sizes[at - 1], sizes[at], sizes[at + 1]];
  const bend = a - 2 * b + c;
  const t = bend > 0 ? (a - c) / (2 * bend) : 0;
  return { value: b - ((a - c) * t) / 4, atHz: hz[at] * (hz[at + 1] / hz[at]) ** t, ...more };
}

const leastPlace = (values: Float64Array): number =>
  values.reduce((least, v, k) => (v < values[least] ? k : least), 0);

interface WaysOverBand {
  hz: Float64Array;
  ways: readonly ComplexTrace[];
}

/** How far apart neighbouring ways are in phase where they hand over, and how deep the null is there. */
function atSplits(
  speaker: SolvedSpeaker,
  splitsHz: readonly number[],
  over: WaysOverBand,
): Pick<CrossoverFigures, 'phase' | 'null'> {
  if (splitsHz.length === 0) return { phase: null, null: null };
  const levels = over.ways.map(soundLevels);
  const depths = depthsOf(over.ways);
  const crossings = splitsHz.map((split, i) => crossingHz({ hz: over.hz, levels }, split, i));
  const at = Float64Array.from(crossings);
  const { ways } = speaker.sound(speaker.electrical(at));
  const apart = crossings.map((hz, k) => {
    const [low, high] = [ways[k], ways[k + 1]];
    const degrees =
      ((Math.atan2(high.im[k], high.re[k]) - Math.atan2(low.im[k], low.re[k])) * 180) / Math.PI;
    return { value: degrees - 360 * Math.round(degrees / 360), atHz: hz };
  });
  return {
    phase: apart.reduce((a, b) => (Math.abs(b.value) > Math.abs(a.value) ? b : a)),
    null: crossings
      .map((hz) => nullAt(speaker, hz, over.hz, depths))
      .reduce((a, b) => (b.value < a.value ? b : a)),
  };
}

/** Where two neighbouring ways are equally loud, nearest to where they are asked to be. */
export function crossingHz(
  { hz, levels }: { hz: Float64Array; levels: readonly Float64Array[] },
  split: number,
  lower: number,
): number {
  const [low, high] = [levels[lower], levels[lower + 1]];
  let best = split;
  let far = Infinity;
  for (let k = 1; k < hz.length; k++) {
    const [before, here] = [low[k - 1] - high[k - 1], low[k] - high[k]];
    if (before > 0 === here > 0) continue;
    const at = hz[k - 1] * (hz[k] / hz[k - 1]) ** (before / (before - here));
    if (Math.abs(Math.log(at / split)) < far) [best, far] = [at, Math.abs(Math.log(at / split))];
  }
  return best;
}

/** A null is looked for so far around a crossing, as a ratio. */
const NULL_REACH = 1.4;
/** Steps between two points of the whole band, where the null is looked for closely. */
const NULL_STEPS = 5;

/**
 * How far the sum falls near a crossing when every second way is turned over; or rises, where it is.
 *
 * @param depths what it falls by over the whole band
 */
function nullAt(
  speaker: SolvedSpeaker,
  crossing: number,
  hz: Float64Array,
  depths: Float64Array,
): CrossoverFigure {
  const isNear = (f: number) => Math.abs(Math.log(f / crossing)) <= Math.log(NULL_REACH);
  const { atHz } = deepest(hz, depths, isNear);
  const step = (hz[1] / hz[0]) ** (1 / NULL_STEPS);
  const close = Float64Array.from(
    { length: 2 * NULL_STEPS + 1 },
    (_, k) => atHz * step ** (k - NULL_STEPS),
  );
  return deepest(close, depthsOf(speaker.sound(speaker.electrical(close)).ways), () => true);
}

/** By how much the sum differs from the one with every second way turned over, dB. */
function depthsOf(ways: readonly ComplexTrace[]): Float64Array {
  const plain = soundLevels(
    summed(
      ways,
      ways.map(() => 1),
    ),
  );
  const turned = soundLevels(summed(ways, alternating(ways.length)));
  return plain.map((db, k) => Math.abs(db - turned[k]));
}

/** The deepest of some depths, and where it lies. */
function deepest(hz: Float64Array, depths: Float64Array, counts: (hz: number) => boolean) {
  let [value, atHz] = [-Infinity, hz[0]];
  hz.forEach((f, k) => {
    if (counts(f) && depths[k] > value) [value, atHz] = [depths[k], f];
  });
  return { value, atHz };
}

/** How far the level falls, so many degrees up, below what it is ahead. */
function dipUp(
  speaker: SolvedSpeaker,
  electrical: Electrical,
  ahead: Float64Array,
  { fromHz, toHz }: Crossover,
): CrossoverFigure {
  const hz = electrical.frequenciesHz;
  const up = soundLevels(speaker.sound(electrical, { up: DIP_UP, side: 0 }).sum);
  let [worst, atHz] = [0, fromHz];
  hz.forEach((f, k) => {
    if (f < fromHz || f > toHz || ahead[k] - up[k] <= worst) return;
    [worst, atHz] = [ahead[k] - up[k], f];
  });
  return { value: worst, atHz };
}
