import { checkCrossover } from '@/core/sheet/gate';
import { makeSheet, DEFAULT_PARTS } from '@/core/sheet/make';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { PartChoices, Sheet, Source, Stage, Way } from '@/core/sheet/schema';
import type { Slot } from '@/core/slots';
import type { SectionSlot } from '@/core/slots/section';
import type { Place } from '@/core/speaker/place';
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
): SectionSlot[] {
  const common = { is: 'section' as const, alignment, order, ohms: nominalOhms[way] };
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

/** A passive crossover as textbooks have it: sections for nominal loads, and what was asked for besides. */
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
      const { wireMetres } = way;
      const stage = (slot: Slot, origin: Stage['origin']) =>
        stageOfSlot(ids(), slot, parts, { origin, wireMetres });
      return {
        id: way.id,
        name: way.name,
        from: { is: 'source' },
        stages: [
          ...sectionsOf(crossover, i).map((slot) => stage(slot, 'ask')),
          ...(way.slots ?? []).map((slot) => stage(slot, 'hand')),
        ],
        to: {
          is: 'driver',
          name: way.driver.name,
          driver: way.driver.id,
          inverted: isTurnedOver(crossover.order, i),
          place: way.place,
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
    const wound = way.stages.flatMap((s) => Object.values(s.parts)).find((p) => p.wound)?.wound;
    const passOf = ({ slot }: Stage) => (slot?.is === 'section' ? slot.pass : undefined);
    const stages = sectionsOf(now, index).flatMap((slot) => {
      const same = way.stages.filter((s) => passOf(s) === slot.pass);
      const own = same.find((s) => s.origin === 'ask');
      if (own) return redesignedSlot(own, slot, design.parts);
      // One that was asked for by hand stands in its place, and stays as it is.
      if (same.length > 0) return [];
      const wireMetres = wound?.wireMetres;
      return stageOfSlot(fresh(), slot, design.parts, { origin: 'ask', wireMetres });
    });
    const { to } = way;
    const turns = before && isTurnedOver(now.order, index) !== isTurnedOver(before.order, index);
    return {
      ...way,
      stages: [...stages, ...way.stages.filter((s) => s.origin !== 'ask')],
      to: to.is === 'driver' && turns ? { ...to, inverted: !to.inverted } : to,
    };
  });
  return { ...design, crossover: now, ways };
}
