/** Rows and columns of a square part of a matrix that is solved for itself. */
export interface Block {
  rows: number[];
  columns: number[];
}

/**
 * Blocks on the diagonal of a sparse matrix in the order that leaves nothing on one side of them: a
 * matching of rows with columns, then the strongly connected parts of what follows from what (A. L.
 * Dulmage, N. S. Mendelsohn, "Coverings of Bipartite Graphs", Canadian J. Math. 10, 1958; R. Tarjan,
 * SIAM J. Computing 1, 1972). The determinant is the product of those of the blocks.
 *
 * @param columnsOf for each row the columns it has entries in
 * @returns undefined where no matching exists: the matrix is singular whatever its values
 */
export function blocksOf(columnsOf: readonly (readonly number[])[]): Block[] | undefined {
  const n = columnsOf.length;
  const rowOf = new Int32Array(n).fill(-1);
  for (let row = 0; row < n; row++) {
    if (!matched(row, columnsOf, rowOf, new Uint8Array(n))) return undefined;
  }
  return strongParts(n, (row) => columnsOf[row].map((column) => rowOf[column])).map((rows) => ({
    rows,
    columns: rows.map((row) => rowOf.indexOf(row)),
  }));
}

/** Find a column for a row, moving others to further columns of theirs if need be. */
function matched(
  row: number,
  columnsOf: readonly (readonly number[])[],
  rowOf: Int32Array,
  seen: Uint8Array,
): boolean {
  for (const column of columnsOf[row]) {
    if (seen[column]) continue;
    seen[column] = 1;
    if (rowOf[column] < 0 || matched(rowOf[column], columnsOf, rowOf, seen)) {
      rowOf[column] = row;
      return true;
    }
  }
  return false;
}

/** Parts of a directed graph in which every vertex can be reached from every other. */
function strongParts(n: number, following: (vertex: number) => readonly number[]): number[][] {
  const order = new Int32Array(n).fill(-1);
  const low = new Int32Array(n);
  const open = new Uint8Array(n);
  const stack: number[] = [];
  const parts: number[][] = [];
  let next = 0;
  const visit = (vertex: number): void => {
    order[vertex] = low[vertex] = next++;
    stack.push(vertex);
    open[vertex] = 1;
    for (const other of following(vertex)) {
      if (order[other] < 0) {
        visit(other);
        low[vertex] = Math.min(low[vertex], low[other]);
      } else if (open[other]) low[vertex] = Math.min(low[vertex], order[other]);
    }
    if (low[vertex] !== order[vertex]) return;
    const part = stack.splice(stack.indexOf(vertex));
    part.forEach((v) => (open[v] = 0));
    parts.push(part);
  };
  for (let vertex = 0; vertex < n; vertex++) if (order[vertex] < 0) visit(vertex);
  return parts;
}
