import type { DriverEntry } from '@/core/library/driver';
import { libraryOf, LIBRARY_TABLES, type Library } from '@/core/library';
import type { LibraryTable } from '@/core/library/entry';
import type { Sheet, SheetDesign, Stage, StagePart, Way, WayEnd } from './schema';

/*
 * What a sheet names of the library: takes by its boards, loudspeakers by the ends of its ways, parts
 * of the drawer by the parts of its stages. Its keeps do so too.
 */

/** The ids that a sheet and its keeps refer to, by table. */
export type References = Readonly<Record<LibraryTable, ReadonlySet<string>>>;

export function referencesOf(sheet: Pick<Sheet, 'keeps'> & SheetDesign): References {
  const found = { takes: new Set<string>(), drivers: new Set<string>(), drawer: new Set<string>() };
  const note = (table: LibraryTable, id: string) => {
    found[table].add(id);
    return id;
  };
  for (const design of [sheet, ...sheet.keeps.map((k) => k.design)]) renamedIn(design, note);
  return found;
}

/** The entries of a library that a sheet refers to. */
export function referredTo(sheet: Sheet, library: Library): Library {
  const wanted = referencesOf(sheet);
  return libraryOf((table) => library[table].filter(({ id }) => wanted[table].has(id)));
}

/** The sheet with its references, and those of its keeps, changed. */
export function withReferences(
  sheet: Sheet,
  rename: (table: LibraryTable, id: string) => string,
): Sheet {
  return {
    ...sheet,
    ...renamedIn(sheet, rename),
    keeps: sheet.keeps.map((k) => ({
      ...k,
      design: { ...k.design, ...renamedIn(k.design, rename) },
    })),
  };
}

function renamedIn(
  { ways, boards }: Pick<SheetDesign, 'ways' | 'boards'>,
  rename: (table: LibraryTable, id: string) => string,
): Pick<SheetDesign, 'ways' | 'boards'> {
  const partOf = (part: StagePart): StagePart =>
    part.stock === undefined ? part : { ...part, stock: rename('drawer', part.stock) };
  const stageOf = (stage: Stage): Stage => ({
    ...stage,
    parts: Object.fromEntries(Object.entries(stage.parts).map(([id, p]) => [id, partOf(p)])),
  });
  const wayOf = (way: Way): Way => ({
    ...way,
    stages: way.stages.map(stageOf),
    to: way.to.is === 'driver' ? { ...way.to, driver: rename('drivers', way.to.driver) } : way.to,
  });
  return {
    ways: ways.map(wayOf),
    boards: boards.map((b) => ({ ...b, takes: b.takes.map((id) => rename('takes', id)) })),
  };
}

export const refersToNothing = (references: References): boolean =>
  LIBRARY_TABLES.every((table) => references[table].size === 0);

const filledEnds = new WeakMap<Way['to'], { model: unknown; to: WayEnd }>();

/** An end with the model of its loudspeaker: the same object as long as both are the same. */
function withModel(to: Way['to'], model: unknown): WayEnd {
  const found = filledEnds.get(to);
  if (found && found.model === model) return found.to;
  const filled = { ...to, model };
  filledEnds.set(to, { model, to: filled });
  return filled;
}

const filledDesigns = new WeakMap<SheetDesign, SheetDesign>();

/**
 * A kept design with its models: the same object as long as they are the same ones, so that it is sent
 * and solved once however often the sheet around it is edited.
 */
function sameAsBefore(of: SheetDesign, filled: SheetDesign): SheetDesign {
  const found = filledDesigns.get(of);
  if (found?.ways.every(({ to }, i) => to === filled.ways[i].to)) return found;
  filledDesigns.set(of, filled);
  return filled;
}

/**
 * The sheet with the models of its loudspeakers at the ends of its ways, as it is solved. A sheet
 * without loudspeakers is the same object; one whose entry is missing keeps its bare end, and the
 * way says so when it is solved.
 */
export function withDrivers(sheet: Sheet, drivers: readonly DriverEntry[]): Sheet {
  const models = new Map(drivers.map((d) => [d.id, d.model]));
  const filled = <T extends Pick<SheetDesign, 'ways'>>(design: T): T => {
    if (!design.ways.some(({ to }) => to.is === 'driver' && models.has(to.driver))) return design;
    const ways = design.ways.map((way): Way => {
      const model = way.to.is === 'driver' ? models.get(way.to.driver) : undefined;
      return model === undefined ? way : { ...way, to: withModel(way.to, model) };
    });
    return { ...design, ways };
  };
  const own = filled(sheet);
  const keeps = sheet.keeps.map((k) => {
    const design = sameAsBefore(k.design, filled(k.design));
    return design === k.design ? k : { ...k, design };
  });
  return own === sheet && keeps.every((k, i) => k === sheet.keeps[i]) ? sheet : { ...own, keeps };
}
