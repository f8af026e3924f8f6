import { solveCrossover } from './solve';
import { soundLevels } from '@/core/speaker/sound-levels';
import { messageOf, ReedError } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import type { Slot } from '@/core/slots';
import type { TrapAcrossSlot, TrapInLineSlot } from '@/core/slots/trap';
import { evenly, leastImpedance } from '@/core/speaker/tune/measure';
import { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import type { Hump } from './humps';
import { isCrossover, type CrossoverDesign } from './crossover-design';
import { speakerOf } from './speaker-of';
import { stageOfSlot } from './stage-of-slot';

/** A trap for a hump, with what it does to the whole. */
export interface TrapOffer {
  slot: TrapInLineSlot | TrapAcrossSlot;
  /** Its values as they would be taken. */
  values: Record<string, number>;
  /** What it takes at the middle of the hump. */
  downDb: number;
  sumDb: Float64Array;
  ohms: Float64Array;
  leastOhms: number;
}

export interface TrapsPicture {
  frequenciesHz: Float64Array;
  before: { sumDb: Float64Array; ohms: Float64Array; leastOhms: number } | null;
  across: TrapOffer | null;
  inLine: TrapOffer | null;
  /** Which suits here, and why. */
  suits: { which: 'across' | 'in-line'; why: 'coil' | 'load' | 'nothing-in-line' } | null;
  /** A dip beside the hump, and how much lower it comes to lie. */
  dip: { hz: number; lowerDb: number } | null;
  problem: string | null;
}

const POINTS = 241;
/** Searching the resistance that a trap works against: steps, and how near to the wish. */
const STEPS = 14;
const NEAR_DB = 0.02;
/** A trap that takes less than this part of what was asked of it is none. */
const WORTH = 0.7;
const ID = 'trap';

/** Both traps for a hump of a way, at its end before the driver, on the true circuit. */
export function trapsPicture(
  sheet: Sheet,
  { way, hump }: { way: string; hump: Hump },
): TrapsPicture {
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = evenly(fromHz, toHz, POINTS);
  const none: TrapsPicture = {
    frequenciesHz,
    before: null,
    across: null,
    inLine: null,
    suits: null,
    dip: null,
    problem: null,
  };
  if (!isCrossover(sheet)) return none;
  const index = sheet.ways.findIndex((w) => w.id === way);
  if (index < 0) return none;
  try {
    const plain = effectOf(sheet, frequenciesHz);
    const { hz, db, octaves } = hump;
    const wish = { hz, downDb: db, octaves };
    const across = offerOf(sheet, index, hump, frequenciesHz, (sourceOhms) => ({
      is: 'trap-across',
      ...wish,
      sourceOhms,
    }));
    const inLine = offerOf(sheet, index, hump, frequenciesHz, (loadOhms) => ({
      is: 'trap-in-line',
      ...wish,
      loadOhms,
    }));
    const offered = across ?? inLine;
    return {
      ...none,
      before: plain,
      across,
      inLine,
      suits: suitable(sheet, across, inLine),
      dip: offered && dipBeside(frequenciesHz, plain.sumDb, offered.sumDb, hump),
    };
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    return { ...none, problem: messageOf(error) };
  }
}

/** A crossover with one more slot at the end of a way. */
function withSlot(design: CrossoverDesign, index: number, slot: Slot): CrossoverDesign {
  const stage = stageOfSlot(ID, slot, {
    resistors: 'exact',
    capacitors: 'exact',
    inductors: 'exact',
  });
  return {
    ...design,
    ways: design.ways.map((way, i) =>
      i === index ? { ...way, stages: [...way.stages, stage] } : way,
    ),
  };
}

function effectOf(design: CrossoverDesign, hz: Float64Array) {
  const speaker = new SolvedSpeaker(speakerOf(design));
  const electrical = speaker.electrical(hz);
  const z = speaker.impedance(electrical);
  return {
    sumDb: soundLevels(speaker.sound(electrical).sum),
    ohms: z.re.map((re, k) => Math.hypot(re, z.im[k])),
    leastOhms: leastImpedance(speaker).ohms,
  };
}

/** Level of a way at one frequency; `name` is of those whose equations may be taken over. */
const wayLevel = (design: CrossoverDesign, index: number, hz: number, name: string): number => {
  const speaker = solveCrossover(design, 'true', name);
  return soundLevels(speaker.sound(speaker.electrical(Float64Array.of(hz))).ways[index])[0];
};

/**
 * A trap that takes what is wanted on the true circuit: the resistance that it is designed against is
 * found by halving, since what a way resists with there is no number of its parts alone.
 */
function offerOf(
  design: CrossoverDesign,
  index: number,
  { hz, db }: Hump,
  frequenciesHz: Float64Array,
  slotFor: (ohms: number) => TrapInLineSlot | TrapAcrossSlot,
): TrapOffer | null {
  const before = wayLevel(design, index, hz, 'trap before');
  const taken = (logOhms: number) =>
    before -
    wayLevel(withSlot(design, index, slotFor(Math.exp(logOhms))), index, hz, slotFor(1).is);
  let [low, high] = [Math.log(0.2), Math.log(200)];
  // In line more is taken the more it resists, across the less.
  const rising = slotFor(1).is === 'trap-in-line';
  let at = (low + high) / 2;
  let now = taken(at);
  for (let step = 0; step < STEPS && Math.abs(now - db) > NEAR_DB; step++) {
    if (now < db === rising) low = at;
    else high = at;
    at = (low + high) / 2;
    now = taken(at);
  }
  if (now < WORTH * db) return null;
  const slot = slotFor(Math.exp(at));
  const changed = withSlot(design, index, slot);
  const parts = changed.ways[index].stages.find((s) => s.id === ID)!.parts;
  return {
    slot,
    values: Object.fromEntries(Object.entries(parts).map(([id, p]) => [id, p.value!])),
    downDb: now,
    ...effectOf(changed, frequenciesHz),
  };
}

/** Across where a coil lies before it and the amplifier bears it; in line otherwise. */
function suitable(
  { crossover }: CrossoverDesign,
  across: TrapOffer | null,
  inLine: TrapOffer | null,
): TrapsPicture['suits'] {
  if (!across) return inLine ? { which: 'in-line', why: 'nothing-in-line' } : null;
  if (!inLine) return { which: 'across', why: 'coil' };
  return across.leastOhms < crossover.leastOhms
    ? { which: 'in-line', why: 'load' }
    : { which: 'across', why: 'coil' };
}

/** How far a dip is looked for beside a hump, octaves, and what lies lower by less is none. */
const BESIDE = 1.6;
const DIP_DB = 0.3;

/** The deepest dip beside a hump that goes down with it. */
function dipBeside(
  hz: Float64Array,
  before: Float64Array,
  after: Float64Array,
  hump: Hump,
): TrapsPicture['dip'] {
  let found: TrapsPicture['dip'] = null;
  for (let k = 1; k < hz.length - 1; k++) {
    if (Math.abs(Math.log2(hz[k] / hump.hz)) > BESIDE) continue;
    if (before[k] > before[k - 1] || before[k] >= before[k + 1]) continue;
    const lowerDb = before[k] - after[k];
    if (lowerDb > Math.max(DIP_DB, found?.lowerDb ?? 0)) found = { hz: hz[k], lowerDb };
  }
  return found;
}
