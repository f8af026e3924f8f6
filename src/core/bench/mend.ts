import type { StockEntry } from '@/core/library/stock';
import type { Take } from '@/core/library/take';
import type { Sheet } from '@/core/sheet/schema';
import type { Culprit } from '@/core/suspects/rank';
import { boardCircuit, type SheetBoard, type TakenHow } from './board-circuit';
import { withSuspect } from './compare';
import { trims, type Trim } from './trim';
import { isValued, valueOfPart } from '@/core/mistakes/mistake';

/** A board whose culprit is known. */
export interface MendRequest {
  sheet: Sheet;
  board: SheetBoard | undefined;
  take: Pick<Take, 'frequenciesHz'> & TakenHow;
  culprit: Culprit;
  drawer: readonly StockEntry[];
}

/** What brings a board in. */
export interface Mending {
  /** Entries of the drawer that hold what should be there, the fullest first. */
  swaps: readonly StockEntry[];
  /** And what else does, the culprit left where it is. */
  trims: Trim[];
}

/** What lies in a drawer is the right value within this. */
const SAME = 0.005;

/**
 * How a board is brought in: the right part from the drawer, or a resistor of a series that makes up
 * for it.
 *
 * @throws ReedError as `boardCircuit`
 */
export function mendBoard({ sheet, board, take, culprit, drawer }: MendRequest): Mending {
  const { circuit, probe, fixed } = boardCircuit(sheet, board, drawer, {
    // What is brought in is what comes out, whatever was measured.
    ...(take.meter && !take.of ? { meter: take.meter } : {}),
  });
  const wrong = circuit.parts.find((p) => p.id === culprit.id);
  const should = wrong && isValued(wrong) ? valueOfPart(wrong) : undefined;
  const swaps = drawer.filter(
    ({ kind, value, quantity }) =>
      should !== undefined &&
      value !== undefined &&
      kind === wrong?.kind &&
      quantity > 0 &&
      Math.abs(value / should - 1) <= SAME,
  );
  return {
    swaps: [...swaps].sort((a, b) => b.quantity - a.quantity),
    trims: trims({
      circuit,
      real: withSuspect(circuit, { parts: [culprit] }),
      probe,
      frequenciesHz: Float64Array.from(take.frequenciesHz),
      movable: circuit.parts.map((p) => p.id).filter((id) => !fixed.has(id) && id !== culprit.id),
      series: 'E96',
    }),
  };
}
