import { soundLevels } from '@/core/speaker/sound-levels';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { evenly } from '@/core/speaker/tune/measure';
import { amplifierLoads, hardest, sizesOf } from './loads';
import { crossoverFigures, type CrossoverFigures } from './readings';
import { slotGains, type SlotGain } from './slot-gains';
import { alternating, phasesAtListener, solveCrossover, summed } from './solve';
import { isCrossover, type CrossoverDesign } from './crossover-design';
import type { Load } from './speaker-of';

/** A crossover as one layer shows it. */
export interface CrossoverLayer {
  id: 'built' | 'nominal' | `keep:${string}`;
  sumDb: Float64Array;
  /** The sum with every second way turned over. */
  turnedDb: Float64Array;
  /** Of the sum, without the delay of the way to the listener. */
  sumDegrees: Float64Array;
  ways: {
    id: string;
    levelDb: Float64Array;
    degrees: Float64Array;
    /** What each of its slots adds at the middle of its band; of the built layer alone. */
    slots: SlotGain[];
  }[];
  /** What each amplifier sees, and the resistance that would be as hard on it. */
  loads: { way?: string; ohms: Float64Array; degrees: Float64Array; hardest: Float64Array }[];
  figures: CrossoverFigures;
}

export interface CrossoverPicture {
  frequenciesHz: Float64Array;
  layers: CrossoverLayer[];
  problems: string[];
}

const POINTS = 361;

/** Everything that a crossover's screen shows of its curves. */
export function crossoverPicture(sheet: Sheet): CrossoverPicture {
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = evenly(fromHz, toHz, POINTS);
  const wanted: { id: CrossoverLayer['id']; design: CrossoverDesign; load: Load }[] = [];
  if (isCrossover(sheet))
    wanted.push(
      { id: 'built', design: sheet, load: 'true' },
      { id: 'nominal', design: sheet, load: 'nominal' },
    );
  for (const { id, shown, design } of sheet.keeps)
    if (shown && isCrossover(design)) wanted.push({ id: `keep:${id}`, design, load: 'true' });
  const layers: CrossoverLayer[] = [];
  const problems: string[] = [];
  for (const { id, design, load } of wanted) {
    try {
      const make = () => layerOf(id, design, load, `${sheet.id} ${id}`, frequenciesHz);
      layers.push(id.startsWith('keep:') ? keptLayer(design, frequenciesHz, make) : make());
    } catch (error) {
      problems.push(messageOf(error));
    }
  }
  return { frequenciesHz, layers, problems };
}

const kept = new WeakMap<CrossoverDesign, { hz: Float64Array; layer: CrossoverLayer }>();

/** A kept state never changes: it is solved once, as long as it is looked at over the same frequencies. */
function keptLayer(
  design: CrossoverDesign,
  hz: Float64Array,
  make: () => CrossoverLayer,
): CrossoverLayer {
  let found = kept.get(design);
  if (found?.hz !== hz) kept.set(design, (found = { hz, layer: make() }));
  return found.layer;
}

function layerOf(
  id: CrossoverLayer['id'],
  design: CrossoverDesign,
  load: Load,
  name: string,
  hz: Float64Array,
): CrossoverLayer {
  const { listen } = design.crossover;
  const metres = Math.hypot(listen.xMetres, listen.yMetres, listen.zMetres);
  const speaker = solveCrossover(design, load, name);
  const electrical = speaker.electrical(hz);
  const { sum, ways } = speaker.sound(electrical);
  // The rows show the present state alone.
  const slots = id === 'built' ? slotGains(design, speaker) : [];
  return {
    id,
    sumDb: soundLevels(sum),
    turnedDb: soundLevels(summed(ways, alternating(ways.length))),
    sumDegrees: phasesAtListener(sum, hz, metres),
    ways: ways.map((way, i) => ({
      id: design.ways[i].id,
      levelDb: soundLevels(way),
      degrees: phasesAtListener(way, hz, metres),
      slots: slots[i] ?? [],
    })),
    loads: amplifierLoads(design, speaker, electrical).map(({ way, ohms: z }) => ({
      ...(way === undefined ? {} : { way }),
      ohms: sizesOf(z),
      degrees: z.re.map((re, k) => (Math.atan2(z.im[k], re) * 180) / Math.PI),
      hardest: hardest(z),
    })),
    figures: crossoverFigures(speaker, design, load, electrical),
  };
}

const SMALL_POINTS = 96;

/** The sum of a crossover for a small picture, dB below its top. */
export function crossoverCurve(sheet: Sheet & CrossoverDesign): {
  frequenciesHz: Float32Array;
  levelDb: Float32Array;
} {
  const hz = evenly(sheet.view.fromHz, sheet.view.toHz, SMALL_POINTS);
  const speaker = solveCrossover(sheet, 'true', `${sheet.id} small`);
  const levels = soundLevels(speaker.sound(speaker.electrical(hz)).sum);
  const top = levels.reduce((a, b) => Math.max(a, b), -Infinity);
  return {
    frequenciesHz: Float32Array.from(hz),
    levelDb: Float32Array.from(levels, (db) => db - top),
  };
}
