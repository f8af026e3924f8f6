import { checkCrossover } from '@/core/sheet/gate';
import { makeSheet, DEFAULT_PARTS } from '@/core/sheet/make';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { PartChoices, Sheet, Source, Stage, Way } from '@/core/sheet/schema';
import type { Slot } from '@/core/slots';
import type { EdgeSlot } from '@/core/slots/section';
import { MIDDLE, type Place } from '@/core/speaker/place';
import {
  activeStages,
  INPUT_BUFFER,
  isActive,
  levelTrim,
  LINE_OHMS,
  passOf,
  stageOfActive,
  trimOf,
  USUAL_GAIN_DB,
  type ActiveStage,
} from './active';
import { activeLikes, passiveLikes } from './counterparts';
import { driverEnd, type DriverEnd } from './crossover-design';
import { redesignedSlot, stageOfSlot } from './stage-of-slot';

/** One way of a new crossover, from the lowest up. */
export interface NewWay {
  id: string;
  name: string;
  driver: { id: string; name: string };
  place: Place;
  /** The resistance that its sections are designed for. */
  nominalOhms: number;
  /** Slots behind its sections. */
  slots?: readonly Slot[];
  /** An amplifier of its own: its sections are built of op-amps, with these stages behind them. */
  amplifier?: NonNullable<DriverEnd['amplifier']>;
  active?: readonly ActiveStage[];
  /** Wire of its coils, metres. */
  wireMetres?: number;
}

export interface NewCrossover {
  id: string;
  title: string;
  at: string;
  demo?: string;
  ways: readonly NewWay[];
  crossover: Omit<Crossover, 'nominalOhms'>;
  source: Source;
  parts?: PartChoices;
}

/** What of a crossover decides its sections. */
export type Division = Pick<Crossover, 'splitsHz' | 'alignment' | 'order' | 'nominalOhms'>;

/** The sections that a way begins with: a high-pass above its lower split, a low-pass below its upper. */
export function sectionsOf(
  { splitsHz, alignment, order, nominalOhms }: Division,
  way: number,
): EdgeSlot[] {
  const common = { is: 'section' as const, alignment, order, ohms: nominalOhms[way] };
  // What stands behind the bands, a helper for one, follows no split.
  if (way > splitsHz.length) return [];
  return [
    ...(way > 0 ? [{ ...common, pass: 'high' as const, hz: splitsHz[way - 1] }] : []),
    ...(way < splitsHz.length ? [{ ...common, pass: 'low' as const, hz: splitsHz[way] }] : []),
  ];
}

/**
 * Whether a way is turned over in the textbook: sections of second order are half a turn apart where
 * they meet, those of third a quarter either way, those of fourth a whole one.
 */
export const isTurnedOver = (order: number, way: number): boolean => order === 2 && way % 2 === 1;

/**
 * A crossover as textbooks have it: sections for nominal loads, or of op-amps ahead of an amplifier,
 * and what was asked for besides.
 */
export function makeCrossover(wanted: NewCrossover): Sheet {
  const { ways, source, parts = DEFAULT_PARTS, ...rest } = wanted;
  const crossover: Crossover = { ...wanted.crossover, nominalOhms: ways.map((w) => w.nominalOhms) };
  const base = makeSheet({
    id: rest.id,
    title: rest.title,
    at: rest.at,
    ...(rest.demo === undefined ? {} : { demo: rest.demo }),
    // A crossover is asked for by its own sentence; this only says what kind of filter it begins with.
    ask: {
      kind: 'low-pass',
      shape: 'butterworth',
      order: 2,
      edgeHz: crossover.splitsHz[0] ?? 1000,
      edge: 'half-power',
      topology: 'rlc-low-pass',
    },
    source,
    parts,
    readings: [],
  });
  const ids = freshSlotIds({ ways: [] });
  return {
    ...base,
    crossover,
    ways: ways.map((way, i): Way => {
      const { wireMetres, amplifier } = way;
      const stage = (slot: Slot, origin: Stage['origin']) =>
        stageOfSlot(ids(), slot, parts, { origin, wireMetres });
      const active = (asked: ActiveStage, origin: Stage['origin']) =>
        stageOfActive(ids(), asked, parts, origin);
      const sections = sectionsOf(crossover, i);
      return {
        id: way.id,
        name: way.name,
        from: { is: 'source' },
        stages: amplifier
          ? [
              active(INPUT_BUFFER, 'hand'),
              ...sections.flatMap(activeStages).map((asked) => active(asked, 'ask')),
              ...(way.active ?? []).map((asked) => active(asked, 'hand')),
            ]
          : [
              ...sections.map((slot) => stage(slot, 'ask')),
              ...(way.slots ?? []).map((slot) => stage(slot, 'hand')),
            ],
        to: {
          is: 'driver',
          name: way.driver.name,
          driver: way.driver.id,
          inverted: isTurnedOver(crossover.order, i),
          place: way.place,
          ...(amplifier ? { amplifier } : {}),
        },
      };
    }),
    view: { lens: 'sum', fromHz: 20, toHz: 20_000 },
  };
}

/** Ids that no stage of a crossover has, one after the other. */
export function freshSlotIds({ ways }: Pick<Sheet, 'ways'>): () => string {
  const taken = new Set(ways.flatMap((w) => w.stages.map((s) => s.id)));
  let n = 0;
  return () => {
    do n++;
    while (taken.has(`s${n}`));
    return `s${n}`;
  };
}

type Divided = Pick<Sheet, 'parts' | 'ways' | 'crossover'>;

/** What of a crossover its sections are designed by. */
const divisionOf = ({ splitsHz, alignment, order, nominalOhms }: Crossover): string =>
  JSON.stringify([splitsHz, alignment, order, nominalOhms]);

/**
 * A crossover that is asked for otherwise: sections that follow the ask are designed anew.
 *
 * @throws ReedError `range` for a field that is no crossover’s, in the words of the field
 */
export function redivided<D extends Divided>(design: D, now: Crossover): D {
  checkCrossover(now);
  const before = design.crossover;
  if (before && divisionOf(before) === divisionOf(now)) return { ...design, crossover: now };
  const fresh = freshSlotIds(design);
  const ways = design.ways.map((way, index): Way => {
    const turned = turnedFor(way, index, before, now);
    if (isActive(way))
      return { ...way, stages: activeRedivided(way, index, now, design.parts, fresh), to: turned };
    const wound = way.stages.flatMap((s) => Object.values(s.parts)).find((p) => p.wound)?.wound;
    const stages = sectionsOf(now, index).flatMap((slot) => {
      const same = way.stages.filter((s) => passOf(s) === slot.pass);
      const own = same.find((s) => s.origin === 'ask');
      if (own) return redesignedSlot(own, slot, design.parts);
      // One that was asked for by hand stands in its place, and stays as it is.
      if (same.length > 0) return [];
      const wireMetres = wound?.wireMetres;
      return stageOfSlot(fresh(), slot, design.parts, { origin: 'ask', wireMetres });
    });
    return {
      ...way,
      stages: [...stages, ...way.stages.filter((s) => s.origin !== 'ask')],
      to: turned,
    };
  });
  return { ...design, crossover: now, ways };
}

/** What a way ends in, turned over where the new order asks for it and the old one did not. */
function turnedFor(way: Way, index: number, before: Crossover | undefined, now: Crossover) {
  const to = driverEnd(way);
  const turns = before && isTurnedOver(now.order, index) !== isTurnedOver(before.order, index);
  return turns ? { ...to, inverted: !to.inverted } : to;
}

/** Stages with op-amps that follow the ask, designed anew where they stand; they keep their ids. */
function activeRedivided(
  { stages }: Way,
  index: number,
  now: Crossover,
  parts: PartChoices,
  fresh: () => string,
): Stage[] {
  const old = stages.filter((s) => s.origin === 'ask');
  // Where sections were replaced by hand, by a knob for one, those stand in their place.
  const made = sectionsOf(now, index)
    .filter(
      ({ pass }) => old.some((s) => passOf(s) === pass) || !stages.some((s) => passOf(s) === pass),
    )
    .flatMap(activeStages)
    .map((asked, i) => stageOfActive(old[i]?.id ?? fresh(), asked, parts, 'ask'));
  const by = stages.filter((s) => s.origin !== 'ask');
  const first = stages.findIndex((s) => s.origin === 'ask');
  const ahead = first < 0 ? by.length : first;
  return [...by.slice(0, ahead), ...made, ...by.slice(ahead)];
}

/**
 * The same crossover with an amplifier for every way, or with one for all: sections are designed anew,
 * pads become level trims and traps dips, and the other way round; what has no counterpart goes.
 *
 * @throws ReedError `design` for sections that cannot be
 */
export function withAmplifiers<D extends Divided & Pick<Sheet, 'source'>>(
  design: D,
  each: boolean,
): D {
  const crossover = design.crossover!;
  const gain = 10 ** ((each ? -1 : 1) * (USUAL_GAIN_DB / 20));
  const wanted = design.ways.map((way, i): NewWay => {
    const { name, driver, place = MIDDLE } = driverEnd(way);
    const downDb = Number(trimsOf(way).toFixed(9));
    const asked = sectionsOf(crossover, i);
    const ohms = crossover.nominalOhms[i];
    return {
      id: way.id,
      name: way.name,
      driver: { id: driver, name },
      place,
      nominalOhms: ohms,
      ...(each
        ? {
            amplifier: { gainDb: USUAL_GAIN_DB, ohms: design.source.ohms },
            active: [...activeLikes(way, asked), ...(downDb > 0 ? [levelTrim(downDb)] : [])],
          }
        : {
            slots: [
              ...passiveLikes(way, asked, ohms),
              ...(downDb > 0 ? [{ is: 'pad' as const, downDb, ohms, adjustable: false }] : []),
            ],
          }),
    };
  });
  // There and back a level is what it was.
  const scaled = (volts: number) => Number((volts * gain).toPrecision(each ? 12 : 9));
  const volts = scaled(design.source.volts);
  const made = makeCrossover({
    id: 'new',
    title: '',
    at: new Date(0).toISOString(),
    ways: wanted,
    crossover: { ...crossover, loudVolts: scaled(crossover.loudVolts) },
    source: each
      ? { name: 'Line', ohms: LINE_OHMS, volts }
      : { name: 'Amplifier', ohms: amplifierOhms(design.ways), volts },
    parts: design.parts,
  });
  const ways = made.ways.map((way, i) => ({
    ...way,
    to: { ...driverEnd(way), inverted: driverEnd(design.ways[i]).inverted },
  }));
  return { ...design, crossover: made.crossover, source: made.source, ways };
}

/** How much level is taken from a way by hand, dB. */
const trimsOf = ({ stages }: Way): number =>
  stages.reduce(
    (db, stage) => db + (stage.slot?.is === 'pad' ? stage.slot.downDb : trimOf(stage)),
    0,
  );

const amplifierOhms = (ways: readonly Way[]): number =>
  ways.map((w) => driverEnd(w).amplifier?.ohms).find((ohms) => ohms !== undefined) ?? 0;
