import type { StockEntry } from '@/core/library/stock';
import { partKindOf } from '@/core/parts';
import type { PartsLine } from './parts-list';

/** A line of the list with what of it is there. */
export interface LineOnHand {
  line: PartsLine;
  needed: number;
  onHand: number;
  lacking: number;
  /** What one costs: as in the drawer, or as usual for its kind. */
  priceEach: number | null;
  /** Pieces by entry of the drawer, as they would be taken. */
  take: [entry: string, pieces: number][];
}

/** Values this close are one. */
const SAME = 1e-3;

/**
 * What of a list lies in the drawer, for so many boards. Entries that a part was chosen from are taken
 * first, then those that are good enough, the dearest last.
 */
export function partsOnHand(
  lines: readonly PartsLine[],
  drawer: readonly StockEntry[],
  boards: number,
): LineOnHand[] {
  return lines.map((line) => {
    const needed = line.each * boards;
    const fitting = drawer
      .filter((entry) => fits(entry, line))
      .sort(
        (a, b) =>
          Number(line.stock.includes(b.id)) - Number(line.stock.includes(a.id)) ||
          (a.price ?? 0) - (b.price ?? 0),
      );
    const take: LineOnHand['take'] = [];
    let left = needed;
    for (const { id, quantity } of fitting) {
      const pieces = Math.min(left, quantity);
      if (pieces > 0) take.push([id, pieces]);
      left -= pieces;
    }
    const priced = fitting.find((e) => e.price !== undefined);
    return {
      line,
      needed,
      onHand: fitting.reduce((sum, e) => sum + e.quantity, 0),
      lacking: left,
      priceEach: priced?.price ?? line.price ?? partKindOf(line.kind).price,
      take,
    };
  });
}

function fits(entry: StockEntry, line: PartsLine): boolean {
  if (entry.kind !== line.kind) return false;
  if (line.value === undefined) return entry.name === line.device;
  if (entry.value === undefined || Math.abs(entry.value / line.value - 1) > SAME) return false;
  if (line.tolerance !== undefined && (entry.tolerance ?? 0) > line.tolerance) return false;
  if (line.peakVolts !== undefined && entry.ratedVolts !== undefined)
    if (entry.ratedVolts < line.peakVolts) return false;
  return (
    line.watts === undefined || entry.ratedWatts === undefined || entry.ratedWatts > line.watts
  );
}
