import { ReedError } from '@/core/errors';
import type { DriverModel } from '@/core/parts/kinds/driver';
import { quoted } from '@/core/text';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { SPEED_OF_SOUND } from '@/core/speaker/air';
import { coneRadius, riseInBox } from '@/core/speaker/figures';
import { MIDDLE, type Place } from '@/core/speaker/place';
import { evenly } from '@/core/speaker/tune/measure';
import {
  heardAt,
  impedanceAt,
  prepareUnit,
  pressureAt,
  type PreparedUnit,
} from '@/core/speaker/unit';
import { size } from '@/core/numeric/complex';
import { levelTrim, LINE_OHMS, USUAL_GAIN_DB } from './active';
import { makeCrossover, type NewWay } from './make';
import { MOST_WAYS } from './ways';

/** A unit that a way is to end in. */
export interface ChosenUnit {
  id: string;
  name: string;
  model: DriverModel;
}

/** Between which frequencies a unit is of use ahead of it, hertz. */
export interface UsableBand {
  fromHz: number;
  toHz: number;
  /** Up to where its level holds, whether or not it beams. */
  levelToHz: number;
}

/** Everything that is heard. */
const HEARD = { fromHz: 20, toHz: 20_000, points: 241 };
/** A unit above the lowest is used from so far above its resonance: below, it moves too far. */
const ABOVE_RESONANCE = 2;
/** It is used up to where so many radians of a wave lie on its radius: above, it beams. */
const BEAMING = 2;
/** It is as loud as it is over a fifth of what is heard, and of use until it falls so far below, dB. */
const LOUD = 0.8;
const FALLEN_DB = 6;

/**
 * Where a unit is of use: from an octave above its resonance, up to where its cone is as wide as two
 * radians of the wave (ka = 2, from where a piston beams: Beranek, "Acoustics", 1954, ch. 4), and only
 * where its level holds. What is not known of it sets no limit.
 *
 * @throws ReedError `range` for an impedance table that no circuit fits
 */
export function usableBand(model: DriverModel): UsableBand {
  const unit = prepared(model);
  const holds = holdsOver(unit);
  const { sdSquareCentimetres: area } = model;
  const beams =
    area === undefined ? Infinity : (BEAMING * SPEED_OF_SOUND) / (2 * Math.PI * coneRadius(area));
  const fromHz = Math.max(holds[0], ABOVE_RESONANCE * (model.fsHz ?? 0) * riseInBox(model));
  const levelToHz = Math.max(fromHz, holds[holds.length - 1]);
  return { fromHz, toHz: Math.max(fromHz, Math.min(levelToHz, beams)), levelToHz };
}

/** The frequencies of what is heard where the level of a unit holds; all of them where it is not known. */
function holdsOver(unit: PreparedUnit): Float64Array {
  const grid = evenly(HEARD.fromHz, HEARD.toHz, HEARD.points);
  if (!isHeard(unit)) return grid;
  const level = grid.map((hz) => 20 * Math.log10(size(pressureAt(unit, hz)) + 1e-15));
  const least = [...level].sort((a, b) => a - b)[Math.floor(level.length * LOUD)] - FALLEN_DB;
  return grid.filter((_, k) => level[k] >= least);
}

/** Whether it is known how loud a unit is. */
const isHeard = ({ level, figures }: PreparedUnit): boolean => !!(level ?? figures);

const prepared = (model: DriverModel) =>
  prepareUnit({ ...model, id: 'unit', name: 'unit', place: MIDDLE });

/** A split between two units, and why it may be wrong to make it. */
export interface ProposedSplit {
  hz: number;
  doubt?: string;
}

/**
 * Where units from the lowest up are best divided: midway, by ratio, between what the upper one can do
 * and what the lower one can, at two digits.
 */
export function proposedSplits(units: readonly ChosenUnit[]): ProposedSplit[] {
  const bands = units.map(({ model }) => usableBand(model));
  let below = HEARD.fromHz;
  return bands.slice(1).map((upper, i) => {
    const lower = bands[i];
    const middle = Math.sqrt(upper.fromHz * lower.toHz);
    // Low enough to leave room for those above.
    const highest = HIGHEST / LEAST_BAND ** (units.length - 2 - i);
    const hz = Number(Math.min(highest, Math.max(middle, below * LEAST_BAND)).toPrecision(2));
    below = hz;
    const [low, high] = [units[i].name, units[i + 1].name];
    if (upper.fromHz > lower.toHz * ROUNDING)
      return {
        hz,
        doubt: `${low} narrows its beam or falls above ${words(lower.toHz)}, and ${high} is of use from ${words(upper.fromHz)}: a unit between the two, or steep slopes.`,
      };
    return { hz };
  });
}

const HIGHEST = 12_000;
/** No way is narrower than this, as a ratio. */
const LEAST_BAND = 2;
/** Limits that differ by less are the same. */
const ROUNDING = 1.1;

const words = (hz: number): string => {
  const [x, unit] = hz >= 1000 ? [hz / 1000, 'kHz'] : [hz, 'Hz'];
  return `${Number(x.toPrecision(2))} ${unit}`;
};

/** What ways are called, by how many there are. */
const NAMES: readonly (readonly string[])[] = [
  ['full'],
  ['low', 'high'],
  ['low', 'middle', 'high'],
  ['low', 'lower middle', 'upper middle', 'high'],
];

export interface CrossoverPlan {
  title: string;
  at: string;
  /** From the lowest up. */
  units: readonly ChosenUnit[];
  splitsHz: readonly number[];
  alignment: Crossover['alignment'];
  order: number;
  /** An amplifier for each way, or one for all. */
  each: boolean;
}

/** The distance between the edges of neighbouring units, metres, and the radius where none is known. */
const BETWEEN = 0.02;
const USUAL_RADIUS = 0.05;
/** Levels are taken down by whole steps of this, dB. */
const PAD_STEP = 0.5;
const VOLTS = 2.83;

/**
 * A crossover for units as they are: sections for the least impedance that each has in its band, and
 * the louder ones taken down to the quietest; one above the other with the highest on top.
 *
 * @throws ReedError `range` for no units, too many, or splits that do not rise; `design` for sections
 *   that cannot be
 */
export function crossoverOfUnits(plan: CrossoverPlan): Sheet {
  const { units, splitsHz, each, order, alignment } = plan;
  if (units.length === 0 || units.length > MOST_WAYS)
    throw new ReedError('range', `Choose one to ${MOST_WAYS} drivers, the lowest first.`);
  const unheard = units.find(({ model }) => !isHeard(prepared(model)));
  if (unheard)
    throw new ReedError(
      'range',
      `How loud ${quoted(unheard.name)} is, is not known: give it all its figures or a table of its level, under Drivers.`,
    );
  const odd = splitsHz.findIndex((hz, i) => !(hz > (splitsHz[i - 1] ?? 0)));
  if (odd >= 0)
    throw new ReedError(
      'range',
      `Split ${odd + 1} must lie above ${odd === 0 ? 'zero' : 'the one before it'}: ${words(splitsHz[odd])} does not.`,
    );
  const places = stacked(units);
  const own = units.map(({ model }) => usableBand(model));
  const bands = own.map(({ fromHz, toHz }, i): Band => ({
    fromHz: splitsHz[i - 1] ?? fromHz,
    toHz: splitsHz[i] ?? Math.max(toHz, splitsHz[i - 1] ?? 0),
  }));
  const levels = units.map(({ model }, i) => meanLevel(model, bands[i]));
  const quietest = Math.min(...levels);
  const ways = units.map(({ id, name, model }, i): NewWay => {
    const nominalOhms = Number(leastOhms(model, bands[i]).toPrecision(2));
    const downDb = PAD_STEP * Math.round((levels[i] - quietest) / PAD_STEP);
    // Ahead of the lowest way of a passive network a pad would burn most of the power.
    const taken = downDb > 0 && (each || i > 0);
    return {
      id: `way${i + 1}`,
      name: NAMES[units.length - 1][i],
      driver: { id, name },
      place: places[i],
      nominalOhms,
      ...(each
        ? {
            amplifier: { gainDb: USUAL_GAIN_DB, ohms: AMPLIFIER_OHMS },
            active: taken ? [levelTrim(downDb)] : [],
          }
        : taken
          ? { slots: [{ is: 'pad' as const, downDb, ohms: nominalOhms, adjustable: false }] }
          : {}),
    };
  });
  const gain = 10 ** (USUAL_GAIN_DB / 20);
  const fromHz = Math.max(LOWEST, own[0].fromHz);
  const toHz = Math.max(LEAST_BAND * fromHz, Math.min(TOP, own[own.length - 1].levelToHz));
  return makeCrossover({
    id: 'new',
    title: plan.title,
    at: plan.at,
    ways,
    source: each
      ? { name: 'Line', ohms: LINE_OHMS, volts: Number((VOLTS / gain).toPrecision(4)) }
      : { name: 'Amplifier', ohms: AMPLIFIER_OHMS, volts: VOLTS },
    crossover: {
      splitsHz: [...splitsHz],
      alignment,
      order,
      fromHz: Number(fromHz.toPrecision(2)),
      toHz: Number(toHz.toPrecision(2)),
      withinDb: units.length > 2 ? 1.5 : 1,
      leastOhms: 4,
      loudVolts: each ? Number((LOUD_VOLTS / gain).toPrecision(4)) : LOUD_VOLTS,
      listen: { xMetres: 0, yMetres: 0, zMetres: 2 },
    },
  });
}

type Band = Pick<UsableBand, 'fromHz' | 'toHz'>;

const AMPLIFIER_OHMS = 0.05;
/** A sum is asked to be even between these at most. */
const LOWEST = 50;
const TOP = 15_000;
const LOUD_VOLTS = 20;

/** Units one above the other, the first at the bottom, about the middle of the front. */
function stacked(units: readonly ChosenUnit[]): Place[] {
  const radii = units.map(({ model: { sdSquareCentimetres: area } }) =>
    area === undefined ? USUAL_RADIUS : coneRadius(area),
  );
  const heights = [0];
  for (let i = 1; i < radii.length; i++)
    heights.push(heights[i - 1] + radii[i - 1] + BETWEEN + radii[i]);
  const middle = heights[heights.length - 1] / 2;
  return heights.map((y) => ({
    xMetres: 0,
    yMetres: Number((y - middle).toFixed(3)),
    zMetres: 0,
  }));
}

const IN_BAND = 25;

/** The mean level of a unit over its band at a metre ahead, dB for a volt. */
function meanLevel(model: DriverModel, { fromHz, toHz }: Band): number {
  const unit = prepared(model);
  const grid = evenly(fromHz, toHz, IN_BAND);
  const ahead = { metres: 1, sine: 0 };
  const levels = Array.from(grid, (hz) => 20 * Math.log10(size(heardAt(unit, ahead, hz)) + 1e-15));
  return levels.reduce((a, b) => a + b, 0) / levels.length;
}

/** The least impedance of a unit over its band. */
function leastOhms(model: DriverModel, { fromHz, toHz }: Band): number {
  const unit = prepared(model);
  return evenly(fromHz, toHz, IN_BAND).reduce(
    (least, hz) => Math.min(least, size(impedanceAt(unit, hz))),
    Infinity,
  );
}
