import { ReedError } from '@/core/errors';
import { splineAt, splineSlopes } from './spline';

/** How a level goes on beyond its table, dB an octave as frequency rises. */
export interface Tails {
  lowSlope: number;
  highSlope: number;
}

const NEPERS_PER_DB = Math.LN10 / 20;
const DEGREES = 180 / Math.PI;
/** Straight pieces that the curve through a table is cut into, at least; and most a row. */
const PIECES = 1_500;
const MOST_A_ROW = 12;

/**
 * The phase of a minimum-phase response from its level, by the relation of gain and phase
 * phi(w0) = (1/pi) int (dA/du) ln coth |u/2| du, u = ln(w/w0), A in nepers
 * (H. W. Bode, "Network Analysis and Feedback Amplifier Design", 1945, chapter XIV). Between the rows
 * the level follows a cubic spline, cut into straight pieces over which the integral is closed.
 *
 * @param frequenciesHz rising, two or more
 * @param levelDb at each
 * @returns degrees at each frequency, not brought into one turn
 * @throws ReedError `range` for a table of fewer than two rows, or that does not rise
 */
export function minimumPhaseDegrees(
  frequenciesHz: ArrayLike<number>,
  levelDb: ArrayLike<number>,
  { lowSlope, highSlope }: Tails,
): Float64Array {
  const n = frequenciesHz.length;
  if (n < 2) throw new ReedError('range', 'A phase needs the level at two frequencies or more.');
  const u = Float64Array.from(frequenciesHz, Math.log);
  for (let i = 1; i < n; i++)
    if (!(u[i] > u[i - 1]))
      throw new ReedError('range', `The frequencies do not rise at row ${i + 1}.`);
  const perOctave = NEPERS_PER_DB / Math.LN2;
  const [low, high] = [lowSlope * perOctave, highSlope * perOctave];
  const table = inPieces(
    u,
    Float64Array.from(levelDb, (x) => x * NEPERS_PER_DB),
  );
  const { at, nepers } = withTails(table, low, high);
  const slopes = new Float64Array(at.length - 1);
  for (let i = 0; i < slopes.length; i++)
    slopes[i] = (nepers[i + 1] - nepers[i]) / (at[i + 1] - at[i]);
  return u.map((u0) => {
    let before = weight(at[0] - u0);
    let sum = low * (before + WHOLE);
    for (let i = 0; i < slopes.length; i++) {
      const after = weight(at[i + 1] - u0);
      sum += slopes[i] * (after - before);
      before = after;
    }
    sum += high * (WHOLE - before);
    return (sum / Math.PI) * DEGREES;
  });
}

interface Pieces {
  at: Float64Array;
  nepers: Float64Array;
}

/** Over how much of a tail it bends into its slope, in units of ln f, and into how many pieces. */
const BEND = 3;
const BEND_PIECES = 48;
/** Over how much of a table its last slope is read, and how far from the tail's it may lie: rows scatter. */
const SPAN = Math.LN2 / 8;
const MOST = (6 * NEPERS_PER_DB) / Math.LN2;

/**
 * What departs from the slope of a tail dies away with the square of frequency, as it does in any
 * response of poles and zeros: the curve is carried on by pieces that bend from the slope it ends
 * with into that of the tail.
 */
function withTails({ at, nepers }: Pieces, low: number, high: number): Pieces {
  const last = at.length - 1;
  const slopeTo = (from: number, step: number) => {
    let to = from + step;
    while (to + step >= 0 && to + step <= last && Math.abs(at[to] - at[from]) < SPAN) to += step;
    return (nepers[to] - nepers[from]) / (at[to] - at[from]);
  };
  const near = (slope: number, tail: number) => Math.min(tail + MOST, Math.max(tail - MOST, slope));
  const first = near(slopeTo(0, 1), low);
  const end = near(slopeTo(last, -1), high);
  const bend = (slope: number, tail: number) =>
    Array.from({ length: BEND_PIECES }, (_, k) => {
      const far = (BEND * (k + 1)) / BEND_PIECES;
      return { far, rise: tail * far + ((slope - tail) * (1 - Math.exp(-2 * far))) / 2 };
    });
  const before = bend(first, low).reverse();
  const after = bend(end, high);
  return {
    at: Float64Array.of(
      ...before.map(({ far }) => at[0] - far),
      ...at,
      ...after.map(({ far }) => at[last] + far),
    ),
    nepers: Float64Array.of(
      ...before.map(({ rise }) => nepers[0] - rise),
      ...nepers,
      ...after.map(({ rise }) => nepers[last] + rise),
    ),
  };
}

/** A curve through points, cut into straight pieces. */
function inPieces(u: Float64Array, y: Float64Array): Pieces {
  const parts = Math.min(MOST_A_ROW, Math.max(1, Math.ceil(PIECES / u.length)));
  const slopes = splineSlopes(u, y);
  const count = (u.length - 1) * parts + 1;
  const [at, nepers] = [new Float64Array(count), new Float64Array(count)];
  for (let k = 0; k < count; k++) {
    const i = Math.min(u.length - 2, Math.floor(k / parts));
    const t = (k - i * parts) / parts;
    at[k] = u[i] + t * (u[i + 1] - u[i]);
    nepers[k] = splineAt(u, y, slopes, i, t);
  }
  return { at, nepers };
}

/** int_0^oo ln coth(x/2) dx. */
const WHOLE = Math.PI ** 2 / 4;

/** int_0^t ln coth |x/2| dx, odd in t: by its power series near zero, by exponentials beyond. */
function weight(t: number): number {
  const x = Math.abs(t);
  if (x === 0) return 0;
  let found: number;
  if (x < 1) {
    // -ln tanh y = -ln y + y^2/3 - 7 y^4/90 + 62 y^6/2835 - 127 y^8/18900 + ...
    const y = x / 2;
    const y2 = y * y;
    found =
      2 *
      y *
      (1 - Math.log(y) + y2 * (1 / 9 + y2 * (-7 / 450 + y2 * (62 / 19845 - (y2 * 127) / 170100))));
  } else {
    // ln coth(x/2) = 2 (e^-x + e^-3x/3 + e^-5x/5 + ...)
    let rest = 0;
    const step = Math.exp(-2 * x);
    let power = Math.exp(-x);
    for (let n = 1; power > 1e-17 && n < 60; n += 2) {
      rest += power / (n * n);
      power *= step;
    }
    found = WHOLE - 2 * rest;
  }
  return t < 0 ? -found : found;
}
