import type { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import type { Sheet } from '@/core/sheet/schema';

/** One of many boards of a sheet's first way, as built. */
export interface Board {
  /** Prepared, with the values of this board; the same one for all. */
  analysis: AcAnalysis;
  /** The circuit with those values, for what needs equations of its own. */
  circuit: () => Circuit;
}

/** What a lens shows of one board: curves by name, each over places that are the same for all boards. */
export interface BoardCurves {
  places: Readonly<Record<string, Float64Array>>;
  /** @throws ReedError where a board has no such curves */
  read: (board: Board) => Readonly<Record<string, Float64Array>>;
}

/** How the curves of a lens are read off boards of a sheet. */
export type CurvesOfBoards = (sheet: Sheet) => BoardCurves;
