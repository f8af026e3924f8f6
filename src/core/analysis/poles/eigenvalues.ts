import {
  difference,
  LONG_EPSILON,
  LONG_ONE,
  long,
  multiple,
  negative,
  product,
  quotient,
  root,
  size,
  sum,
  ZERO,
  type Long,
} from '@/core/numeric/double-double';

/** A number in the complex plane. */
export interface Eigenvalue {
  re: Long;
  im: Long;
}

const MOST_SWEEPS = 120;

/**
 * Eigenvalues of a real matrix in numbers of two doubles: balanced, brought to Hessenberg form by
 * elimination, then Francis's double-shift QR (R. S. Martin, G. Peters, J. H. Wilkinson, "The QR
 * Algorithm for Real Hessenberg Matrices", Numerische Mathematik 14, 1970; balancing: B. N. Parlett,
 * C. Reinsch, Numerische Mathematik 13, 1969).
 *
 * @param a row by row; overwritten
 * @returns undefined where the iteration does not settle
 */
export function eigenvalues(a: Long[][]): Eigenvalue[] | undefined {
  balance(a);
  toHessenberg(a);
  return francis(a);
}

/** Rows and columns of like size, by powers of two. */
function balance(a: Long[][]): void {
  const n = a.length;
  for (let pass = 0, moved = true; moved && pass < 50; pass++) {
    moved = false;
    for (let i = 0; i < n; i++) {
      let [row, column] = [0, 0];
      for (let j = 0; j < n; j++) {
        if (j === i) continue;
        row += Math.abs(a[i][j].hi);
        column += Math.abs(a[j][i].hi);
      }
      if (row === 0 || column === 0) continue;
      const factor = 2 ** Math.round(Math.log2(row / column) / 2);
      if ((column * factor + row / factor) / (column + row) > 0.95) continue;
      moved = true;
      for (let j = 0; j < n; j++) {
        a[i][j] = multiple(a[i][j], 1 / factor);
        a[j][i] = multiple(a[j][i], factor);
      }
    }
  }
}

function toHessenberg(a: Long[][]): void {
  const n = a.length;
  for (let m = 1; m < n - 1; m++) {
    let pivot = m;
    for (let i = m; i < n; i++)
      if (Math.abs(a[i][m - 1].hi) > Math.abs(a[pivot][m - 1].hi)) pivot = i;
    if (a[pivot][m - 1].hi === 0) continue;
    [a[m], a[pivot]] = [a[pivot], a[m]];
    for (const row of a) [row[m], row[pivot]] = [row[pivot], row[m]];
    for (let i = m + 1; i < n; i++) {
      if (a[i][m - 1].hi === 0) continue;
      const factor = quotient(a[i][m - 1], a[m][m - 1]);
      a[i][m - 1] = ZERO;
      for (let j = m; j < n; j++) a[i][j] = difference(a[i][j], product(factor, a[m][j]));
      for (let j = 0; j < n; j++) a[j][m] = sum(a[j][m], product(factor, a[j][i]));
    }
  }
}

function francis(a: Long[][]): Eigenvalue[] | undefined {
  const found: Eigenvalue[] = [];
  const norm = a.reduce((s, row) => s + row.reduce((t, x) => t + Math.abs(x.hi), 0), 0);
  let end = a.length - 1;
  let shifted = ZERO;
  for (let sweep = 0; end >= 0;) {
    const start = splitBelow(a, end, norm);
    const x = a[end][end];
    if (start === end) {
      found.push({ re: sum(x, shifted), im: ZERO });
      end--;
      sweep = 0;
      continue;
    }
    const y = a[end - 1][end - 1];
    const w = product(a[end][end - 1], a[end - 1][end]);
    if (start === end - 1) {
      found.push(...pairOf(x, y, w, shifted));
      end -= 2;
      sweep = 0;
      continue;
    }
    if (++sweep > MOST_SWEEPS) return undefined;
    let shift = { x, y, w };
    if (sweep % 10 === 0) {
      // A shift out of the way, where the usual one goes round in circles.
      shifted = sum(shifted, x);
      for (let i = 0; i <= end; i++) a[i][i] = difference(a[i][i], x);
      const s = sum(size(a[end][end - 1]), size(a[end - 1][end - 2]));
      const off = multiple(s, 0.75);
      shift = { x: off, y: off, w: multiple(product(s, s), -0.4375) };
    }
    doubleStep(a, start, end, shift);
  }
  return found;
}

/** The first row of the last block that no vanished entry below the diagonal cuts. */
function splitBelow(a: Long[][], end: number, norm: number): number {
  for (let l = end; l >= 1; l--) {
    const around = Math.abs(a[l - 1][l - 1].hi) + Math.abs(a[l][l].hi) || norm;
    if (Math.abs(a[l][l - 1].hi) <= LONG_EPSILON * around) {
      a[l][l - 1] = ZERO;
      return l;
    }
  }
  return 0;
}

/** Eigenvalues of a block of two with diagonal y, x and product w of the others. */
function pairOf(x: Long, y: Long, w: Long, shifted: Long): Eigenvalue[] {
  const p = multiple(difference(y, x), 0.5);
  const q = sum(product(p, p), w);
  const z = root(size(q));
  const at = sum(x, shifted);
  if (q.hi < 0) {
    const re = sum(at, p);
    return [
      { re, im: z },
      { re, im: negative(z) },
    ];
  }
  const far = p.hi < 0 ? difference(p, z) : sum(p, z);
  const first = sum(at, far);
  const second = far.hi === 0 ? first : difference(at, quotient(w, far));
  return [
    { re: first, im: ZERO },
    { re: second, im: ZERO },
  ];
}

/** One double step of QR on rows and columns start..end. */
function doubleStep(
  a: Long[][],
  start: number,
  end: number,
  shift: { x: Long; y: Long; w: Long },
): void {
  let [p, q, r] = [ZERO, ZERO, ZERO];
  let m = end - 2;
  for (; m >= start; m--) {
    const z = a[m][m];
    const [dx, dy] = [difference(shift.x, z), difference(shift.y, z)];
    p = sum(quotient(difference(product(dx, dy), shift.w), a[m + 1][m]), a[m][m + 1]);
    q = difference(difference(difference(a[m + 1][m + 1], z), dx), dy);
    r = a[m + 2][m + 1];
    [p, q, r] = normed(p, q, r);
    if (m === start) break;
    const u = Math.abs(a[m][m - 1].hi) * (Math.abs(q.hi) + Math.abs(r.hi));
    const v =
      Math.abs(p.hi) *
      (Math.abs(a[m - 1][m - 1].hi) + Math.abs(z.hi) + Math.abs(a[m + 1][m + 1].hi));
    if (u <= LONG_EPSILON * v) break;
  }
  for (let i = m + 2; i <= end; i++) {
    a[i][i - 2] = ZERO;
    if (i > m + 2) a[i][i - 3] = ZERO;
  }
  for (let k = m; k < end; k++) {
    const three = k < end - 1;
    let scale = LONG_ONE;
    if (k > m) {
      [p, q, r] = [a[k][k - 1], a[k + 1][k - 1], three ? a[k + 2][k - 1] : ZERO];
      scale = sum(sum(size(p), size(q)), size(r));
      if (scale.hi === 0) continue;
      [p, q, r] = [quotient(p, scale), quotient(q, scale), quotient(r, scale)];
    }
    const length = root(sum(sum(product(p, p), product(q, q)), product(r, r)));
    const s = p.hi < 0 ? negative(length) : length;
    if (s.hi === 0) continue;
    if (k > m) a[k][k - 1] = negative(product(s, scale));
    else if (start !== m) a[k][k - 1] = negative(a[k][k - 1]);
    p = sum(p, s);
    const [x, y, z] = [quotient(p, s), quotient(q, s), quotient(r, s)];
    q = quotient(q, p);
    r = quotient(r, p);
    for (let j = k; j <= end; j++) {
      let t = sum(a[k][j], product(q, a[k + 1][j]));
      if (three) {
        t = sum(t, product(r, a[k + 2][j]));
        a[k + 2][j] = difference(a[k + 2][j], product(t, z));
      }
      a[k + 1][j] = difference(a[k + 1][j], product(t, y));
      a[k][j] = difference(a[k][j], product(t, x));
    }
    for (let i = start; i <= Math.min(end, k + 3); i++) {
      let t = sum(product(x, a[i][k]), product(y, a[i][k + 1]));
      if (three) {
        t = sum(t, product(z, a[i][k + 2]));
        a[i][k + 2] = difference(a[i][k + 2], product(t, r));
      }
      a[i][k + 1] = difference(a[i][k + 1], product(t, q));
      a[i][k] = difference(a[i][k], t);
    }
  }
}

function normed(p: Long, q: Long, r: Long): [Long, Long, Long] {
  const s = long(Math.abs(p.hi) + Math.abs(q.hi) + Math.abs(r.hi));
  return s.hi === 0 ? [p, q, r] : [quotient(p, s), quotient(q, s), quotient(r, s)];
}
