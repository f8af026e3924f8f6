import { ReedError } from '@/core/errors';
import { freshSlotIds, isTurnedOver, sectionsOf } from '@/core/crossover/make';
import { redesignedSlot, stageOfSlot } from '@/core/crossover/stage-of-slot';
import { withTuning, type TunedCrossover } from '@/core/crossover/tune';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet, Stage, Way } from '@/core/sheet/schema';
import { withValue } from '@/core/sheet/stage';
import type { Slot } from '@/core/slots';
import { edit, type SheetContent } from '@/store/sheet-session';

/*
 * What a person does to a crossover. Each action is one step of history; what it throws is said where
 * it was asked for, and the sheet stays as it was.
 */

const withWay = (
  c: SheetContent,
  id: string,
  change: (way: Way) => Way,
): Pick<SheetContent, 'ways'> => ({
  ways: c.ways.map((way) => (way.id === id ? change(way) : way)),
});

const withSlot = (
  c: SheetContent,
  id: string,
  change: (stage: Stage) => Stage,
): Pick<SheetContent, 'ways'> => ({
  ways: c.ways.map((way) =>
    way.stages.some((s) => s.id === id)
      ? { ...way, stages: way.stages.map((s) => (s.id === id ? change(s) : s)) }
      : way,
  ),
});

const crossoverOf = (c: SheetContent): Crossover => {
  if (!c.crossover) throw new ReedError('document', 'This sheet is no crossover.');
  return c.crossover;
};

/** What decides the sections of the ways. */
const DIVIDES: readonly (keyof Crossover)[] = ['splitsHz', 'alignment', 'order', 'nominalOhms'];

/** Change what is asked for; sections that follow the ask are designed anew. */
export function changeCrossover(change: Partial<Crossover>): void {
  edit((c) => {
    const before = crossoverOf(c);
    const crossover = { ...before, ...change };
    if (!DIVIDES.some((field) => field in change)) return { crossover };
    const fresh = freshSlotIds(c);
    return {
      crossover,
      ways: c.ways.map((way, i) => divided(c.parts, way, i, { now: crossover, before, fresh })),
    };
  });
}

/** A way with the sections that a crossover asks of it in the place of those it asked before. */
function divided(
  parts: Sheet['parts'],
  way: Way,
  index: number,
  { now, before, fresh }: { now: Crossover; before: Crossover; fresh: () => string },
): Way {
  const slots = sectionsOf(now, index);
  const sections = way.stages.filter((s) => s.origin === 'ask');
  const wireMetres = way.stages.flatMap((s) => Object.values(s.parts)).find((p) => p.wound)
    ?.wound?.wireMetres;
  const stages = slots.map((slot, i) =>
    sections[i]
      ? redesignedSlot(sections[i], slot, parts)
      : stageOfSlot(fresh(), slot, parts, { origin: 'ask', wireMetres }),
  );
  const { to } = way;
  const turns = isTurnedOver(now.order, index) !== isTurnedOver(before.order, index);
  return {
    ...way,
    stages: [...stages, ...way.stages.filter((s) => s.origin !== 'ask')],
    to: to.is === 'driver' && turns ? { ...to, inverted: !to.inverted } : to,
  };
}

/** Put a slot at the end of a way, before its driver. */
export function addSlot(wayId: string, slot: Slot): string {
  let id = '';
  edit((c) => {
    id = freshSlotIds(c)();
    const stage = stageOfSlot(id, slot, c.parts);
    return withWay(c, wayId, (way) => ({ ...way, stages: [...way.stages, stage] }));
  });
  return id;
}

/** Ask a slot for something else; its parts are designed anew. */
export const changeSlot = (id: string, slot: Slot): void =>
  edit((c) =>
    withSlot(c, id, (stage) => ({ ...redesignedSlot(stage, slot, c.parts), origin: 'hand' })),
  );

export const removeSlot = (id: string): void =>
  edit((c) => ({
    ways: c.ways.map((way) => ({ ...way, stages: way.stages.filter((s) => s.id !== id) })),
  }));

export const bypassSlot = (id: string): void =>
  edit((c) => withSlot(c, id, (stage) => ({ ...stage, bypassed: !stage.bypassed })));

/** Move a slot one place towards the driver, or towards the amplifier. */
export const moveSlot = (id: string, by: 1 | -1): void =>
  edit((c) => ({
    ways: c.ways.map((way) => {
      const from = way.stages.findIndex((s) => s.id === id);
      const to = from + by;
      if (from < 0 || to < 0 || to >= way.stages.length) return way;
      const stages = [...way.stages];
      [stages[from], stages[to]] = [stages[to], stages[from]];
      return { ...way, stages };
    }),
  }));

export function setPart(stageId: string, part: string, value: number, group?: string): void {
  if (!(value > 0))
    throw new ReedError(
      'range',
      `${part} must be greater than zero: no part has the value ${value}.`,
    );
  edit((c) => withSlot(c, stageId, (stage) => withValue(stage, part, value)), group);
}

/** What a coil is wound of. */
export const setWound = (
  stageId: string,
  part: string,
  wound: NonNullable<Stage['parts'][string]['wound']>,
): void =>
  edit((c) =>
    withSlot(c, stageId, (stage) => ({
      ...stage,
      parts: { ...stage.parts, [part]: { ...stage.parts[part], wound } },
    })),
  );

export const turnOver = (wayId: string): void =>
  edit((c) =>
    withWay(c, wayId, (way) =>
      way.to.is === 'driver' ? { ...way, to: { ...way.to, inverted: !way.to.inverted } } : way,
    ),
  );

type DriverChange = Partial<
  Pick<Extract<Way['to'], { is: 'driver' }>, 'driver' | 'name' | 'place'>
>;

/** Another driver at the end of a way, or another place for it. */
export const changeDriver = (wayId: string, change: DriverChange): void =>
  edit((c) =>
    withWay(c, wayId, (way) =>
      way.to.is === 'driver' ? { ...way, to: { ...way.to, ...change } } : way,
    ),
  );

export const setAmplifier = (change: Partial<Sheet['source']>): void =>
  edit((c) => ({ source: { ...c.source, ...change } }));

/** Take values, and polarity, that a search found. */
export const takeTuning = (found: TunedCrossover): void =>
  edit((c) => ({ ways: withTuning({ ways: c.ways }, found).ways }));
