import { linearProgram } from './linear-program';
import { LOAD_WEIGHT, scoreOf, wantedOhms, type Box, type Tuned } from './score';
import type { SpeakerTrial } from './trial';

const MOST_STEPS = 24;
/** How far logarithms may move in a step, at first and at least. */
const FIRST = 0.3;
const LEAST = 1e-4;
/** Departures below this part of the largest are left out of a step. */
const IDLE = 0.25;
/** Gains that are no longer worth a step, in units of what was asked for. */
const WORTH = 2e-4;

/**
 * Make the largest departure from the target least, step by step: each is a linear program on the
 * slopes, within a region in which they are trusted (K. Madsen, "An Algorithm for Minimax Solution of
 * Overdetermined Systems of Non-linear Equations", J. Inst. Maths Applics 16, 1975). No step makes the
 * score worse.
 */
export function minimax(
  trial: SpeakerTrial,
  start: Tuned,
  box: Box,
  { steps = MOST_STEPS, stop }: { steps?: number; stop?: () => boolean } = {},
): Tuned {
  let best = start;
  let trusted = FIRST;
  for (let step = 0; step < steps && trusted > LEAST; step++) {
    if (stop?.()) break;
    const { x: moved, score: expected } = linearStep(trial, best, box, trusted);
    const expectedGain = best.score - expected;
    if (expectedGain < WORTH) break;
    const score = scoreOf(trial, trial.try(moved));
    const gain = best.score - score;
    if (gain > 0) best = { x: moved, score };
    if (gain < 0.25 * expectedGain) trusted /= 3;
    else if (gain > 0.75 * expectedGain) trusted = Math.min(1, trusted * 1.8);
  }
  return best;
}

/** The best step as the slopes have it: t bounds the departures, u what the load falls short by. */
function linearStep(
  trial: SpeakerTrial,
  { x }: Tuned,
  { lower, upper }: Box,
  trusted: number,
): Tuned {
  const { withinDb } = trial.document.target!;
  const least = wantedOhms(trial);
  const { tried, levels, logOhms, ways } = trial.slopes(x);
  const n = x.length;
  const rows: Float64Array[] = [];
  const limits: number[] = [];
  const limit = (fill: (row: Float64Array) => void, most: number) => {
    const row = new Float64Array(n + 2);
    fill(row);
    rows.push(row);
    limits.push(most);
  };
  let [t, u] = [0, 0];
  const most = Math.max(
    ...tried.levels.map((level) => Math.abs(level) / withinDb),
    ...trial.followed.flatMap((way, w) => [...tried.ways[w]].map((l) => Math.abs(l) / way.within)),
  );
  tried.levels.forEach((level, k) => {
    const r = level / withinDb;
    t = Math.max(t, Math.abs(r));
    // What departs little departs less than the most after a step of this size, too.
    if (Math.abs(r) < IDLE * most) return;
    for (const sign of [1, -1])
      limit((row) => {
        for (let i = 0; i < n; i++) row[i] = (sign * levels[i][k]) / withinDb;
        row[n] = -1;
      }, -sign * r);
  });
  trial.followed.forEach((way, w) =>
    tried.ways[w].forEach((level, k) => {
      if (!way.counts[k]) return;
      const r = level / way.within;
      t = Math.max(t, Math.abs(r));
      if (Math.abs(r) < IDLE * most) return;
      for (const sign of [1, -1])
        limit((row) => {
          for (let i = 0; i < n; i++) row[i] = (sign * ways[w][i][k]) / way.within;
          row[n] = -1;
        }, -sign * r);
    }),
  );
  if (least > 0)
    tried.ohms.forEach((ohms, k) => {
      const short = LOAD_WEIGHT * Math.log(least / ohms);
      u = Math.max(u, short);
      // What lies far above stays above within a step.
      if (ohms > 3 * least) return;
      limit((row) => {
        for (let i = 0; i < n; i++) row[i] = -LOAD_WEIGHT * logOhms[i][k];
        row[n + 1] = -1;
      }, -short);
    });
  limit((row) => (row[n + 1] = -1), 0);
  for (let i = 0; i < n; i++) {
    // A variable at its limit keeps a hair's breadth to move in, so that the start lies inside.
    const room = (far: number) => Math.max(1e-9, Math.min(trusted, far));
    limit((row) => (row[i] = 1), room(upper[i] - x[i]));
    limit((row) => (row[i] = -1), room(x[i] - lower[i]));
  }
  const c = new Array<number>(n + 2).fill(0);
  c[n] = c[n + 1] = 1;
  const inside = [...new Array<number>(n).fill(0), 1.1 * t + 0.1, Math.max(0, u) * 1.1 + 0.1];
  const z = linearProgram(c, rows, limits, inside, 3e-4 * Math.max(1, t));
  const moved = x.map((v, i) => Math.min(upper[i], Math.max(lower[i], v + z[i])));
  return { x: moved, score: z[n] + z[n + 1] };
}
