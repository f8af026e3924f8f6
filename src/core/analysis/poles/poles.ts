import { EigenvalueDecomposition, LuDecomposition, Matrix } from 'ml-matrix';
import { ReedError } from '@/core/errors';
import type { Circuit } from '@/core/circuit/schema';
import { AcAnalysis } from '../ac/ac';
import { solveDense } from '../linear/dense';

/** A root in the s plane, rad/s. */
export interface Root {
  re: number;
  im: number;
}

/** A real root or a conjugate pair, in the words of a designer. */
export interface RootFigures {
  /** |s| / (2 pi). */
  f0Hz: number;
  /** Quality factor of a pair; null for a real root. */
  q: number | null;
  roots: Root[];
}

export interface PoleResult {
  poles: Root[];
  zeros: Root[];
  poleFigures: RootFigures[];
  zeroFigures: RootFigures[];
  /** "stable": all poles left of the axis; "marginal": some on it; "unstable": some right of it. */
  verdict: 'stable' | 'marginal' | 'unstable';
}

/**
 * Poles of a circuit and zeros of the transfer from its sources to a net: the finite generalised
 * eigenvalues of (G, C), and of that pencil bordered by source and probe (A. S. Sedra, J. Vlach, K.
 * Singhal: J. Vlach, K. Singhal, "Computer Methods for Circuit Analysis and Design", 2nd ed., ch. 7).
 *
 * With a shift s0 that is no pole, s = s0 - 1/mu for the eigenvalues mu of (G + s0 C)^-1 C. How many
 * are finite is read off the growth of the determinant; each is polished by inverse iteration on
 * the pencil itself.
 *
 * @throws ReedError `circuit` for an unknown net
 */
export function polesAndZeros(circuit: Circuit, probe: string, signal?: AbortSignal): PoleResult {
  const analysis = new AcAnalysis(circuit, signal);
  const unknown = analysis.unknownOf(probe);
  if (unknown < 0)
    throw new ReedError('circuit', `“${probe}” is the ground net: it has no transfer.`, {
      net: probe,
    });
  const { matrix, rhs } = analysis;
  const n = matrix.size;
  const dense = (size: number) => ({
    g: new Float64Array(size * size),
    c: new Float64Array(size * size),
  });
  const own = dense(n);
  const bordered = dense(n + 1);
  matrix.rows.forEach((row, slot) => {
    const column = matrix.columns[slot];
    own.g[row * n + column] = bordered.g[row * (n + 1) + column] = matrix.g[slot];
    own.c[row * n + column] = bordered.c[row * (n + 1) + column] = matrix.c[slot];
  });
  for (let row = 0; row < n; row++)
    bordered.g[row * (n + 1) + n] = -Math.sign(rhs.re[row]) * Math.hypot(rhs.re[row], rhs.im[row]);
  bordered.g[n * (n + 1) + unknown] = 1;

  const poles = finiteRoots(n, own.g, own.c);
  const driven = rhs.re.some((x) => x !== 0) || rhs.im.some((x) => x !== 0);
  const zeros = driven ? finiteRoots(n + 1, bordered.g, bordered.c) : [];
  const lean = poles.reduce(
    (worst, p) => Math.max(worst, p.re / Math.max(Math.hypot(p.re, p.im), 1e-3)),
    -Infinity,
  );
  return {
    poles,
    zeros,
    poleFigures: figuresOf(poles),
    zeroFigures: figuresOf(zeros),
    verdict: lean > 1e-8 ? 'unstable' : lean > -1e-8 && poles.length > 0 ? 'marginal' : 'stable',
  };
}

/** Roots of det(G + s C), smallest first. */
function finiteRoots(n: number, g0: Float64Array, c0: Float64Array): Root[] {
  const { g, c } = scaled(n, g0, c0);
  const fastest = typicalRate(g, c);
  const count = determinantGrowth(n, g, c, fastest);
  if (count === 0) return [];
  const shift = fastest * 0.137;
  const shifted = new Matrix(n, n);
  const storage = new Matrix(n, n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++) {
      shifted.set(i, j, g[i * n + j] + shift * c[i * n + j]);
      storage.set(i, j, c[i * n + j]);
    }
  }
  const lu = new LuDecomposition(shifted);
  if (lu.isSingular()) return [];
  const { realEigenvalues, imaginaryEigenvalues } = new EigenvalueDecomposition(lu.solve(storage));
  const guesses = realEigenvalues
    .map((re, k) => ({ re, im: imaginaryEigenvalues[k] }))
    .sort((a, b) => Math.hypot(b.re, b.im) - Math.hypot(a.re, a.im))
    .slice(0, count);
  const roots = guesses.map(({ re, im }) => {
    const norm = re * re + im * im;
    const guess = { re: shift - re / norm, im: im / norm };
    return polish(n, g, c, guess, Math.abs(im) < 1e-12 * Math.abs(re));
  });
  return roots.sort((a, b) => Math.hypot(a.re, a.im) - Math.hypot(b.re, b.im) || b.im - a.im);
}

/** Rows and columns brought to like size, for G and C together; roots do not change. */
function scaled(
  n: number,
  g0: Float64Array,
  c0: Float64Array,
): { g: Float64Array; c: Float64Array } {
  const rate = typicalRate(g0, c0);
  const g = Float64Array.from(g0);
  const c = Float64Array.from(c0);
  for (let pass = 0; pass < 6; pass++) {
    for (const byRow of [true, false]) {
      for (let i = 0; i < n; i++) {
        let most = 0;
        for (let j = 0; j < n; j++) {
          const at = byRow ? i * n + j : j * n + i;
          most = Math.max(most, Math.abs(g[at]), rate * Math.abs(c[at]));
        }
        if (most === 0) continue;
        const factor = 1 / Math.sqrt(most);
        for (let j = 0; j < n; j++) {
          const at = byRow ? i * n + j : j * n + i;
          g[at] *= factor;
          c[at] *= factor;
        }
      }
    }
  }
  return { g, c };
}

/** A rate at which G and s C are of like size: the ratio of their norms. */
function typicalRate(g: Float64Array, c: Float64Array): number {
  const most = (a: Float64Array) => a.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
  const [mg, mc] = [most(g), most(c)];
  return mg > 0 && mc > 0 ? mg / mc : 1;
}

/** Degree of det(G + s C) in s: its growth per decade far out on an oblique ray. */
function determinantGrowth(n: number, g: Float64Array, c: Float64Array, rate: number): number {
  // The widest plateau of the slope is the degree; try outwards until two decades agree on a whole number.
  let before = NaN;
  for (let decade = 5; decade <= 14; decade++) {
    const r = rate * 10 ** decade;
    const slope = (logDeterminant(n, g, c, r * 10) - logDeterminant(n, g, c, r)) / Math.LN10;
    const whole = Math.round(slope);
    if (Math.abs(slope - whole) < 0.02 && whole === before) return Math.max(0, whole);
    before = whole;
  }
  return Number.isNaN(before) ? 0 : Math.max(0, before);
}

/** log |det(G + s C)| at s = r e^(j 0.7), by elimination with complete pivoting. */
function logDeterminant(n: number, g: Float64Array, c: Float64Array, r: number): number {
  const re = g.map((x, i) => x + c[i] * r * Math.cos(0.7));
  const im = c.map((x) => x * r * Math.sin(0.7));
  const rows = Array.from({ length: n }, (_, i) => i);
  const columns = [...rows];
  let log = 0;
  for (let k = 0; k < n; k++) {
    let [best, bi, bj] = [0, k, k];
    for (let i = k; i < n; i++) {
      for (let j = k; j < n; j++) {
        const at = rows[i] * n + columns[j];
        const size = re[at] * re[at] + im[at] * im[at];
        if (size > best) [best, bi, bj] = [size, i, j];
      }
    }
    if (best === 0) return -Infinity;
    [rows[k], rows[bi]] = [rows[bi], rows[k]];
    [columns[k], columns[bj]] = [columns[bj], columns[k]];
    log += Math.log(best) / 2;
    const p = rows[k] * n;
    for (let i = k + 1; i < n; i++) {
      const q = rows[i] * n;
      const [ar, ai] = [re[q + columns[k]], im[q + columns[k]]];
      if (ar === 0 && ai === 0) continue;
      const [pr, pi] = [re[p + columns[k]], im[p + columns[k]]];
      const lr = (ar * pr + ai * pi) / best;
      const li = (ai * pr - ar * pi) / best;
      for (let j = k + 1; j < n; j++) {
        const [ur, ui] = [re[p + columns[j]], im[p + columns[j]]];
        re[q + columns[j]] -= lr * ur - li * ui;
        im[q + columns[j]] -= lr * ui + li * ur;
      }
    }
  }
  return log;
}

/** Inverse iteration: (G + s C) w = C v gives v / w = s - root. A few rounds reach machine precision. */
function polish(n: number, g: Float64Array, c: Float64Array, guess: Root, real: boolean): Root {
  let s = guess;
  let v = {
    re: Float64Array.from({ length: n }, (_, i) => 1 + 0.3 * Math.sin(3 * i + 1)),
    im: new Float64Array(n),
  };
  for (let round = 0; round < 6; round++) {
    // A hair beside the guess, so that the matrix is not exactly singular.
    const off = 1e-9 * (Math.hypot(s.re, s.im) || 1);
    const at = { re: s.re + off, im: s.im };
    const re = g.map((x, i) => x + at.re * c[i]);
    const im = c.map((x) => at.im * x);
    const w = solveDense(n, re, im, timesReal(n, c, v.re), timesReal(n, c, v.im));
    if ('singularColumn' in w) return real ? { re: s.re, im: 0 } : s;
    // theta = (v* C* C v) / (v* C* C w): compare in the space C sees.
    const [cv, cw] = [
      [timesReal(n, c, v.re), timesReal(n, c, v.im)],
      [timesReal(n, c, w.re), timesReal(n, c, w.im)],
    ];
    let [ar, br, bi] = [0, 0, 0];
    for (let i = 0; i < n; i++) {
      ar += cv[0][i] ** 2 + cv[1][i] ** 2;
      br += cv[0][i] * cw[0][i] + cv[1][i] * cw[1][i];
      bi += cv[0][i] * cw[1][i] - cv[1][i] * cw[0][i];
    }
    const norm = br * br + bi * bi;
    if (!(norm > 0)) break;
    const next = { re: at.re - (ar * br) / norm, im: at.im + (ar * bi) / norm };
    const moved = Math.hypot(next.re - s.re, next.im - s.im);
    const size = Math.hypot(next.re, next.im);
    // The eigenvalue solver's guess is close; a jump means the iteration has left for another root.
    if (!(moved <= 0.05 * Math.hypot(s.re, s.im) + 1e-30)) {
      if (round === 0) {
        v = unit(w);
        continue;
      }
      break;
    }
    s = next;
    v = unit(w);
    if (moved <= 1e-14 * size) break;
  }
  return real ? { re: s.re, im: 0 } : s;
}

function timesReal(n: number, a: Float64Array, x: Float64Array): Float64Array {
  const y = new Float64Array(n);
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) y[i] += a[i * n + j] * x[j];
  return y;
}

function unit(w: { re: Float64Array; im: Float64Array }): {
  re: Float64Array<ArrayBuffer>;
  im: Float64Array<ArrayBuffer>;
} {
  const size = Math.hypot(...w.re, ...w.im) || 1;
  return {
    re: Float64Array.from(w.re, (x) => x / size),
    im: Float64Array.from(w.im, (x) => x / size),
  };
}

/** f0 and Q of each pair; real roots alone. */
function figuresOf(roots: readonly Root[]): RootFigures[] {
  const list: RootFigures[] = [];
  for (const root of roots) {
    if (root.im < 0) continue;
    const size = Math.hypot(root.re, root.im);
    if (root.im === 0) list.push({ f0Hz: size / (2 * Math.PI), q: null, roots: [root] });
    else
      list.push({
        f0Hz: size / (2 * Math.PI),
        q: root.re === 0 ? Infinity : -size / (2 * root.re),
        roots: [root, { re: root.re, im: -root.im }],
      });
  }
  return list;
}
