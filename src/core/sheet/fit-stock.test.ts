import { fitted } from '@/core/fit/fit-circuit';
import { preferredNumbers } from '@/core/quantity/series';
import { LOW_PASS, newSheet } from '@/testing/open-sheet';
import { fitWay } from './fit-way';
import type { Sheet, Way } from './schema';

/** Plenty of resistors, and one capacitor of each value. */
const STOCK = {
  resistor: [1e3, 1e4, 1e5].flatMap((decade) =>
    preferredNumbers('E24').map((n) => ({
      id: `r${n * decade}`,
      value: (n * decade) / 10,
      quantity: 99,
    })),
  ),
  capacitor: [1e-9, 1e-8].flatMap((decade) =>
    preferredNumbers('E6').map((n) => ({
      id: `c${n}-${decade}`,
      value: (n * decade) / 10,
      quantity: 1,
    })),
  ),
};

/** Entries that the capacitors of a way are taken from. */
const takenBy = ({ stages }: Way): string[] =>
  stages.flatMap(({ parts }) =>
    Object.values(parts).flatMap(({ stock }) => (stock?.startsWith('c') ? [stock] : [])),
  );

/** A sheet with the first capacitor of its path taken from the drawer by hand. */
function kept(sheet: Sheet, stock: string, value: number): Sheet {
  const [first, ...rest] = sheet.ways[0].stages;
  const parts = {
    ...first.parts,
    C1: { ...first.parts.C1, value, stock, chosen: 'hand' as const },
  };
  return { ...sheet, ways: [{ ...sheet.ways[0], stages: [{ ...first, parts }, ...rest] }] };
}

test('what a part that stays takes from the drawer is not there for the others', () => {
  const sheet = newSheet(LOW_PASS);
  const alone = takenBy(fitted(fitWay(sheet, { stock: STOCK })).fitted);
  expect(new Set(alone).size).toBe(alone.length);
  // Whatever the search would take elsewhere, by hand in the place of C1.
  for (const wanted of alone.slice(1)) {
    const { value } = STOCK.capacitor.find(({ id }) => id === wanted)!;
    const { fitted: way } = fitted(fitWay(kept(sheet, wanted, value), { stock: STOCK }));
    expect(way.stages[0].parts.C1).toMatchObject({ stock: wanted, chosen: 'hand' });
    const taken = takenBy(way);
    expect(taken.filter((id) => id === wanted)).toEqual([wanted]);
  }
});
