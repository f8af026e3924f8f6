import type { LongMatrix } from './long-matrix';
import { ratio } from './long-matrix';

/** G + s C on some of their rows and columns. */
export interface Pencil {
  g: LongMatrix;
  c: LongMatrix;
  rows: readonly number[];
  columns: readonly number[];
}

interface Place {
  row: number;
  column: number;
}

/**
 * Take off a pencil everything that holds at no finite s: algebraic equations, and unknowns that
 * others determine at once, however deep they are nested. What is left has a C of full rank, with
 * one entry in each row and column.
 *
 * Rows and columns are combined by elimination with complete pivoting: where C has no rank left, G
 * must have it; where neither has, an equation among the remaining unknowns takes one of them away
 * (the staircase of P. Van Dooren, "The Computation of Kronecker's Canonical Form of a Singular
 * Pencil", Linear Algebra and its Applications 27, 1979). Numbers of two doubles with bounds of their
 * error decide what is zero.
 *
 * @returns undefined where det(G + s C) is zero at every s
 */
export function finitePart({ g, c, rows, columns }: Pencil): Pencil | undefined {
  let live = { rows: [...rows], columns: [...columns] };
  for (;;) {
    const stored: Place[] = [];
    let rest = live;
    for (let p = largest(c, rest); p; p = largest(c, rest)) {
      // C has nothing left outside its pivots; G follows each step.
      clearColumn(c, g, p, live.rows);
      clearRow(c, g, p, live.columns);
      stored.push(p);
      rest = without(rest, p);
    }
    // Equations without storage, for unknowns that nothing stores.
    for (let p = largest(g, rest); p; p = largest(g, rest)) {
      clearColumn(g, undefined, p, live.rows);
      clearRow(g, undefined, p, live.columns);
      live = without(live, p);
      rest = without(rest, p);
    }
    if (rest.rows.length === 0) return { g, c, ...live };
    const kept = { rows: stored.map((p) => p.row), columns: stored.map((p) => p.column) };
    // Equations among stored unknowns alone: each takes one of them away ...
    for (let left = rest.rows; left.length > 0;) {
      const p = largest(g, { rows: left, columns: kept.columns });
      if (!p) return undefined;
      clearColumn(g, undefined, p, left);
      clearRow(g, c, p, kept.columns);
      left = left.filter((row) => row !== p.row);
      kept.columns = kept.columns.filter((column) => column !== p.column);
    }
    // ... and the equations that are left over determine what nothing else does.
    for (let left = rest.columns; left.length > 0;) {
      const p = largest(g, { rows: kept.rows, columns: left });
      if (!p) return undefined;
      clearRow(g, undefined, p, left);
      clearColumn(g, c, p, kept.rows);
      left = left.filter((column) => column !== p.column);
      kept.rows = kept.rows.filter((row) => row !== p.row);
    }
    live = kept;
  }
}

function largest(
  matrix: LongMatrix,
  { rows, columns }: Pick<Pencil, 'rows' | 'columns'>,
): Place | undefined {
  let best: Place | undefined;
  let most = 0;
  for (const row of rows) {
    for (const column of columns) {
      const size = matrix.magnitude(row, column);
      if (size > most) [best, most] = [{ row, column }, size];
    }
  }
  return best;
}

const without = (live: { rows: number[]; columns: number[] }, { row, column }: Place) => ({
  rows: live.rows.filter((r) => r !== row),
  columns: live.columns.filter((c) => c !== column),
});

/** Subtract the pivot's row from all others that have something in its column; `other` follows. */
function clearColumn(
  matrix: LongMatrix,
  other: LongMatrix | undefined,
  { row, column }: Place,
  rows: readonly number[],
): void {
  for (const i of rows) {
    if (i === row || matrix.get(i, column).hi === 0) continue;
    const factor = ratio(matrix.sure(i, column), matrix.sure(row, column));
    for (const m of other ? [matrix, other] : [matrix])
      for (let j = 0; j < m.size; j++) m.subtract(i, j, factor, row, j);
    matrix.clear(i, column);
  }
}

/** The same with columns. */
function clearRow(
  matrix: LongMatrix,
  other: LongMatrix | undefined,
  { row, column }: Place,
  columns: readonly number[],
): void {
  for (const j of columns) {
    if (j === column || matrix.get(row, j).hi === 0) continue;
    const factor = ratio(matrix.sure(row, j), matrix.sure(row, column));
    for (const m of other ? [matrix, other] : [matrix])
      for (let i = 0; i < m.size; i++) m.subtract(i, j, factor, i, column);
    matrix.clear(row, j);
  }
}
