import { ReedError } from '@/core/errors';
import { stageOfActive, type ActiveStage } from '@/core/crossover/active';
import { withGangedEdge, type GangPlan } from '@/core/crossover/gang';
import { freshSlotIds, redivided, withAmplifiers } from '@/core/crossover/make';
import { schooled, type School } from '@/core/crossover/schools';
import { redesignedSlot, stageOfSlot } from '@/core/crossover/stage-of-slot';
import { withBand, withHelper, withoutWay } from '@/core/crossover/ways';
import { withTuning, type TunedCrossover } from '@/core/crossover/tune';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet, Stage, StagePart, Way } from '@/core/sheet/schema';
import { withValue } from '@/core/sheet/stage';
import type { Slot } from '@/core/slots';
import { newId } from '@/store/ids';
import { doneBy, edit, type SheetContent } from '@/store/sheet-session';

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

/** Change what is asked for; sections that follow the ask are designed anew. */
export function changeCrossover(change: Partial<Crossover>): void {
  edit((c) => {
    const before = crossoverOf(c);
    const crossover = { ...before, ...change };
    const { ways } = redivided(c, crossover);
    return { crossover, ways };
  });
}

/** Put a slot at the end of a way, before its driver. */
export const addSlot = (wayId: string, slot: Slot): string =>
  append(wayId, (id, { parts }) => stageOfSlot(id, slot, parts));

/** Put a stage with op-amps at the end of a way, before its amplifier. */
export const addActive = (wayId: string, asked: ActiveStage): string =>
  append(wayId, (id, { parts }) => stageOfActive(id, asked, parts));

function append(wayId: string, make: (id: string, c: SheetContent) => Stage): string {
  let id = '';
  edit((c) => {
    id = freshSlotIds(c)();
    const stage = make(id, c);
    return withWay(c, wayId, (way) => ({ ...way, stages: [...way.stages, stage] }));
  });
  return id;
}

/** One amplifier for all ways, or one for each: sections are designed anew. */
export const setAmplifiers = (each: boolean): void =>
  edit((c) => {
    crossoverOf(c);
    const { crossover, source, ways } = withAmplifiers(c, each);
    // What a knob turned is gone with its stages.
    return { crossover, source, ways, controls: [] };
  });

/** One knob for the sections that meet at a split. */
export const gangEdge = (plan: Omit<GangPlan, 'id'>): void =>
  edit((c) => {
    const { ways, controls } = withGangedEdge(
      { ...c, crossover: crossoverOf(c) },
      { ...plan, id: newId('c') },
    );
    return { ways, controls };
  });

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

/** Move a slot within its way, where there is such a place. */
function placeSlot(id: string, placed: (from: number) => number): void {
  edit((c) => ({
    ways: c.ways.map((way) => {
      const from = way.stages.findIndex((s) => s.id === id);
      const to = placed(from);
      if (from < 0 || to < 0 || to >= way.stages.length) return way;
      const stages = way.stages.filter((_, i) => i !== from);
      stages.splice(to, 0, way.stages[from]);
      return { ...way, stages };
    }),
  }));
}

/** Move a slot one place towards the driver, or towards the amplifier. */
export const moveSlot = (id: string, by: 1 | -1): void => placeSlot(id, (from) => from + by);

/** Put a slot in a place of its way, counted from the amplifier. */
export const moveSlotTo = (id: string, to: number): void => placeSlot(id, () => to);

/** Call a way something else. */
export const renameWay = (id: string, name: string): void =>
  edit((c) => withWay(c, id, (way) => ({ ...way, name })));

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
  wound: NonNullable<StagePart['wound']>,
): void => changePart(stageId, part, (own) => ({ ...own, wound }));

/** What a capacitor resists in series with itself, ohms; null for one without loss. */
export const setLoss = (stageId: string, part: string, ohms: number | null): void =>
  changePart(stageId, part, ({ losses: _, ...own }) => (ohms ? { ...own, losses: { ohms } } : own));

const changePart = (stageId: string, part: string, change: (own: StagePart) => StagePart): void =>
  edit((c) =>
    withSlot(c, stageId, (stage) => ({
      ...stage,
      parts: { ...stage.parts, [part]: change(stage.parts[part]) },
    })),
  );

/** One more way: a band above the others, or a helper of the lowest. */
export const addWay = (as: 'band' | 'helper'): void =>
  edit((c) => {
    const add = as === 'band' ? withBand : withHelper;
    const { ways, crossover } = add({ ...c, crossover: crossoverOf(c) });
    return { ways, crossover };
  });

/** A crossover without one of its ways; what a knob turned there goes with it. */
export const removeWay = (id: string): void =>
  edit((c) => {
    const { ways, crossover } = withoutWay({ ...c, crossover: crossoverOf(c) }, id);
    const stages = new Set(ways.flatMap((w) => w.stages.map((s) => s.id)));
    const controls = c.controls.filter((k) => k.moves.every((m) => stages.has(m.stage)));
    return { ways, crossover, controls };
  });

export const turnOver = (wayId: string): void =>
  edit((c) =>
    withWay(c, wayId, (way) =>
      way.to.is === 'driver' ? { ...way, to: { ...way.to, inverted: !way.to.inverted } } : way,
    ),
  );

type DriverChange = Partial<
  Pick<Extract<Way['to'], { is: 'driver' }>, 'driver' | 'name' | 'place' | 'amplifier'>
>;

/** Another driver at the end of a way, another place for it, or another amplifier before it. */
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
  doneBy('Tuned', () => edit((c) => ({ ways: withTuning({ ways: c.ways }, found).ways })));

/** Take a school’s division, with values that were found for it. */
export const takeSchool = (school: School, tuned: TunedCrossover | undefined): void =>
  edit((c) => {
    const made = schooled({ ...c, crossover: crossoverOf(c) }, school);
    const { ways } = tuned ? withTuning(made, tuned) : made;
    return { crossover: made.crossover, ways };
  });
