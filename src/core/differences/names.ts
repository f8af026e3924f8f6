import { crossoverNames } from '@/core/crossover/network-drawing';
import type { Take } from '@/core/library/take';
import { namesInCircuit } from '@/core/sheet/path-circuit';
import { prefixOf } from '@/core/sheet/nets';
import type { SheetDesign, Stage, Way } from '@/core/sheet/schema';

/** What things that a sheet only refers to are called, by “table/id”. */
export type NamesOfEntries = ReadonlyMap<string, string>;

/** What an entry of the library is called; its id where nobody knows. */
export const entryName = (names: NamesOfEntries, table: string, id: string): string =>
  names.get(`${table}/${id}`) ?? id;

/** The names of entries of a library. */
export const namesOfEntries = (library: {
  takes: readonly Pick<Take, 'id' | 'name'>[];
  drivers: readonly { id: string; name: string }[];
  drawer: readonly { id: string; name: string }[];
}): NamesOfEntries =>
  new Map(
    (['takes', 'drivers', 'drawer'] as const).flatMap((table) =>
      library[table].map(({ id, name }) => [`${table}/${id}`, name] as const),
    ),
  );

/** What the parts of a design are called on its drawings, said with their way where there are several. */
export function partNamesOf(
  design: Pick<SheetDesign, 'ways' | 'crossover'>,
): (way: Way, stage: Stage, part: string) => string {
  if (design.crossover) {
    const names = crossoverNames(design.ways);
    return (_, stage, part) => names.get(stage.id)?.get(part) ?? part;
  }
  const several = design.ways.length > 1;
  const ofWay = new Map(
    design.ways.map((way, w) => {
      const nameOf = namesInCircuit(design, w);
      const bare = prefixOf(design, w).length;
      const before = several ? `${way.name || way.id}: ` : '';
      return [way.id, (stage: Stage, part: string) => before + nameOf(stage, part).slice(bare)];
    }),
  );
  return (way, stage, part) => ofWay.get(way.id)?.(stage, part) ?? part;
}
