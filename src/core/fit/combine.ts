import type { BlockChoice } from './block-choices';
import { costOfSum } from './cost';
import type { Offer } from './offers';

const WIDTH = 200;

/**
 * One choice for every block, so that what they do to the level makes up for each other: blocks one
 * after the other, the best rows of choices kept (a beam search).
 *
 * @param errors of the exact values
 * @returns rows of offers by part, the best first
 */
export function combined(
  blocks: readonly (readonly number[])[],
  choices: readonly (readonly BlockChoice[])[],
  errors: Float64Array,
): Offer[][] {
  interface Row {
    errors: Float64Array;
    picks: readonly number[];
    cost: number;
  }
  let rows: Row[] = [{ errors, picks: [], cost: 0 }];
  for (const list of choices) {
    const next: { row: Row; pick: number; cost: number }[] = [];
    for (const row of rows)
      list.forEach(({ rises }, pick) =>
        next.push({ row, pick, cost: costOfSum(row.errors, rises) }),
      );
    next.sort((a, b) => a.cost - b.cost);
    rows = next.slice(0, WIDTH).map(({ row, pick, cost }) => ({
      errors: row.errors.map((e, k) => e + list[pick].rises[k]),
      picks: [...row.picks, pick],
      cost,
    }));
  }
  return rows.map(({ picks }) => {
    const offers: Offer[] = [];
    picks.forEach((pick, b) =>
      choices[b][pick].offers.forEach((offer, i) => (offers[blocks[b][i]] = offer)),
    );
    return offers;
  });
}
