import { SOURCE } from '@/core/circuit/unit-source';
import type { LinearTime, Drive } from '@/core/analysis/linear-time/linear-time';
import { stepsAfterJump } from '@/core/analysis/linear-time/schedule';
import { Course } from '@/core/analysis/transient/course';

export interface TimeTrace {
  seconds: Float64Array;
  volts: Float64Array;
}

/** A stretch of time in which the source is held, or plays a sine that begins at zero. */
export interface Piece {
  /** Length in smallest steps. */
  units: number;
  /** Volts that are held. */
  held: number;
  /** Peak volts of the sine. */
  sinePeak: number;
}

/** A wave, and how it is to be drawn. */
export interface Shot {
  pieces: readonly Piece[];
  /** Power of two of smallest steps between the points of the drawing. */
  level: number;
  sineHz: number;
  /** A square that has gone on for ever: its volts, and the power of two of half its period. */
  steady?: { volts: number; half: number };
}

/** A source's wave itself, each jump with both its ends. */
export function inputTrace(shot: Shot, smallestSeconds: number): TimeTrace {
  const seconds: number[] = [];
  const volts: number[] = [];
  let at = 0;
  const put = (t: number, v: number) => {
    seconds.push(t);
    volts.push(v);
  };
  if (shot.steady) put(0, -shot.steady.volts);
  for (const { units, held, sinePeak } of shot.pieces) {
    const until = at + units;
    put(at * smallestSeconds, held);
    if (sinePeak !== 0)
      for (let k = at; k < until; k += 2 ** shot.level)
        put(
          k * smallestSeconds,
          sinePeak * Math.sin(2 * Math.PI * shot.sineHz * (k - at) * smallestSeconds),
        );
    put(until * smallestSeconds, held);
    at = until;
  }
  return { seconds: Float64Array.from(seconds), volts: Float64Array.from(volts) };
}

/** What comes out of a circuit, with a point on every crest. */
export function outputTrace(time: LinearTime, shot: Shot): TimeTrace {
  const { seconds, volts } = runOf(time, shot);
  let at = 0;
  const ends = shot.pieces.map(({ units }) => (at += units) * time.seconds(0));
  return withCrests(seconds, volts, [0, ...ends]);
}

/** Points of a run, at moments that are the same for all circuits that are run alike. */
export interface Run {
  seconds: number[];
  volts: number[];
}

/** What comes out of a circuit. */
export const runOf = (time: LinearTime, shot: Shot): Run =>
  time.equations.linear ? aboutRest(time, shot) : gathered((visit) => bentRun(time, shot, visit));

/** What would come out of a circuit if it went on as it does about its rest. */
export const aboutRest = (time: LinearTime, shot: Shot): Run =>
  gathered((visit) => linearRun(time, shot, visit));

function gathered(run: (visit: Visit) => void): Run {
  const found: Run = { seconds: [], volts: [] };
  run((seconds, volts) => {
    found.seconds.push(seconds);
    found.volts.push(volts);
  });
  return found;
}

type Visit = (seconds: number, volts: number) => void;

const driveOf = ({ held, sinePeak }: Piece): Drive => ({ held, sine: 0, cosine: sinePeak });

function linearRun(time: LinearTime, shot: Shot, visit: Visit): void {
  let state = startOf(time, shot);
  let at = 0;
  visit(0, time.volts(state));
  for (const piece of shot.pieces) {
    time.drive(state, driveOf(piece));
    for (const k of stepsAfterJump(piece.units, shot.level)) {
      state = time.step(state, k);
      at += 2 ** k;
      visit(at * time.seconds(0), time.volts(state));
    }
  }
}

const startOf = (time: LinearTime, { steady }: Shot) =>
  steady ? time.steadySquare(steady.volts, steady.half) : time.restState();

/** Periods that a bent circuit is given to get from the straight one's steady state to its own. */
const WARM_PERIODS = 2;
/** The trapezoidal rule takes steps half as long as the drawing's points stand apart. */
const FINER = 1;

function bentRun(time: LinearTime, shot: Shot, visit: Visit): void {
  const start = startOf(time, shot);
  const { unknown } = time;
  const level = shot.level - FINER;
  const units = shot.pieces.reduce((sum, piece) => sum + piece.units, 0);
  const course = new Course(
    time.equations,
    time.unknowns(start),
    SOURCE,
    unknown,
    time.seconds(level),
    units / 2 ** level,
  );
  const play = (piece: Piece, each: Visit | undefined, from: number): void => {
    let done = 0;
    let afterJump = true;
    for (const k of stepsAfterJump(piece.units, level)) {
      done += 2 ** k;
      const phase = 2 * Math.PI * shot.sineHz * done * time.seconds(0);
      course.step(time.seconds(k), piece.held + piece.sinePeak * Math.sin(phase), afterJump);
      afterJump = false;
      each?.((from + done) * time.seconds(0), course.out);
    }
  };
  if (shot.steady)
    for (let period = 0; period < WARM_PERIODS; period++)
      for (const piece of shot.pieces.slice(0, 2)) play(piece, undefined, 0);
  visit(0, course.out);
  let at = 0;
  for (const piece of shot.pieces) {
    play(piece, visit, at);
    at += piece.units;
  }
}

/**
 * Crests between points are where the parabola through three of them turns; none is laid across a
 * jump.
 */
function withCrests(
  seconds: readonly number[],
  volts: readonly number[],
  jumps: readonly number[],
): TimeTrace {
  const t: number[] = [];
  const v: number[] = [];
  const put = (at: number, volt: number) => {
    t.push(at);
    v.push(volt);
  };
  let next = 0;
  for (let k = 0; k < seconds.length; k++) {
    while (next < jumps.length && jumps[next] < seconds[k - 1]) next++;
    const smooth = k > 0 && k + 1 < seconds.length && !(jumps[next] < seconds[k + 1]);
    const crest = smooth ? crestAt(seconds, volts, k) : undefined;
    if (crest && crest.at < seconds[k]) put(crest.at, crest.volts);
    put(seconds[k], volts[k]);
    if (crest && crest.at > seconds[k]) put(crest.at, crest.volts);
  }
  return { seconds: Float64Array.from(t), volts: Float64Array.from(v) };
}

function crestAt(
  seconds: readonly number[],
  volts: readonly number[],
  k: number,
): { at: number; volts: number } | undefined {
  const [left, right] = [seconds[k] - seconds[k - 1], seconds[k + 1] - seconds[k]];
  // Across a change of step the three points may lie on both sides of a jump.
  if (!(left > 0.4 * right && right > 0.4 * left)) return undefined;
  const [a, b] = [(volts[k] - volts[k - 1]) / left, (volts[k + 1] - volts[k]) / right];
  if (a * b >= 0) return undefined;
  const bend = (b - a) / (left + right);
  const slope = (a * right + b * left) / (left + right);
  const away = -slope / (2 * bend);
  return { at: seconds[k] + away, volts: volts[k] + slope * away + bend * away * away };
}
