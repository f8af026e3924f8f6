import type { StockEntry } from '@/core/library/stock';
import type { PartsLine } from '@/core/sheet/parts-list';
import { partsOnHand } from '@/core/sheet/parts-on-hand';

/** What boards of a sheet that are to be built need. */
export interface Need {
  sheet: string;
  title: string;
  boards: number;
  /** Of one board. */
  lines: readonly PartsLine[];
}

/** Parts of one kind and value of which too few lie in the drawer. */
export interface Shortage {
  /** Tells it from every other. */
  key: string;
  /** The closest that any sheet asks for. */
  line: PartsLine;
  pieces: number;
  priceEach: number | null;
  /** Who lacks them. */
  lackedBy: { sheet: string; title: string; pieces: number }[];
}

/** What is the same to a shop. */
export const partKey = ({ kind, value, device, build, tolerance }: PartsLine): string =>
  [kind, value?.toPrecision(4) ?? device ?? '', build ?? '', tolerance ?? '']
    .join('|')
    .slice(0, 200);

/**
 * What is lacking when the drawer is shared out: the sheet that comes first takes what it needs, the
 * next finds what that one leaves.
 */
export function shortages(needs: readonly Need[], drawer: readonly StockEntry[]): Shortage[] {
  let left = drawer;
  const found = new Map<string, Shortage>();
  for (const { sheet, title, boards, lines } of needs)
    for (const line of lines) {
      // One line at a time: two lines of a sheet may want the same entry.
      const [{ take, lacking, priceEach }] = partsOnHand([line], left, boards);
      const taken = new Map(take);
      if (taken.size > 0)
        left = left.map((e) =>
          taken.has(e.id) ? { ...e, quantity: e.quantity - taken.get(e.id)! } : e,
        );
      if (lacking === 0) continue;
      const key = partKey(line);
      const known = found.get(key);
      if (!known) {
        const lackedBy = [{ sheet, title, pieces: lacking }];
        found.set(key, { key, line, pieces: lacking, priceEach, lackedBy });
        continue;
      }
      known.pieces += lacking;
      known.line = {
        ...known.line,
        names: [...new Set([...known.line.names, ...line.names])],
        peakVolts: larger(known.line.peakVolts, line.peakVolts),
        watts: larger(known.line.watts, line.watts),
      };
      const same = known.lackedBy.find((l) => l.sheet === sheet);
      if (same) same.pieces += lacking;
      else known.lackedBy.push({ sheet, title, pieces: lacking });
    }
  return [...found.values()];
}

const larger = (a: number | undefined, b: number | undefined): number | undefined =>
  a === undefined ? b : b === undefined ? a : Math.max(a, b);
