import { Matrix, pseudoInverse } from 'ml-matrix';
import { ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { valuedParts } from '@/core/topologies/instantiate';
import type {
  StageAsk,
  StageChoice,
  StageFigures,
  Topology,
  Values,
} from '@/core/topologies/topology';

/** A figure of a stage that its given parts do not leave free. */
export interface MissedFigure {
  figure: 'f0' | 'Q' | 'gain';
  wanted: number;
  got: number;
}

export interface SolvedStage {
  /** Every part: the given ones as they are, the others worked out. */
  values: Values;
  missed: MissedFigure[];
}

interface Target {
  figure: MissedFigure['figure'];
  wanted: number;
  of: (f: StageFigures) => number;
}

const CLOSE = 1e-12;
const MOST_STEPS = 80;
/** The most that a value moves in one step, as a logarithm. */
const LONGEST = 1;

/**
 * The values of a stage some of whose parts are given, so that its figures are those asked for.
 * Where parts are left over, they stay as near as can be to the design without the given ones; where
 * too few are left, the frequency comes first, then Q, then the gain, and what is missed is said.
 *
 * Newton's method on the logarithms of the free values; where there are more of them than figures,
 * each step is the shortest that will do (A. Ben-Israel, "A Newton-Raphson Method for the Solution
 * of Systems of Equations", J. Math. Anal. Appl. 15, 1966).
 *
 * @throws ReedError `design` when not even the frequency can be had with the given parts
 */
export function valuesWithKnown(
  topology: Topology,
  ask: StageAsk,
  known: Values,
  choice: StageChoice = {},
): SolvedStage {
  const parts = valuedParts(topology);
  const given = Object.fromEntries(
    parts.flatMap(({ id }) => (id in known ? [[id, known[id]]] : [])),
  );
  const free = parts.map((p) => p.id).filter((id) => !(id in given));
  const start = topology.design(ask, startFrom(parts, given, choice));
  if (Object.keys(given).length === 0) return { values: start, missed: [] };
  const wanted = targetsOf(topology, ask, start);
  for (let count = wanted.length; count > 0; count--) {
    const targets = wanted.slice(0, count);
    const values = free.length > 0 && solve(topology, { ...start, ...given }, free, targets);
    if (!values) continue;
    const figures = topology.figures(values);
    return {
      values,
      missed: wanted
        .slice(count)
        .map(({ figure, wanted: want, of }) => ({ figure, wanted: want, got: of(figures) }))
        .filter(({ wanted: want, got }) => !(Math.abs(got / want - 1) < 1e-6)),
    };
  }
  const names = Object.keys(given).join(', ');
  throw new ReedError(
    'design',
    `${topology.name}: with ${names} given, no value of ${free.length > 0 ? free.join(', ') : 'any other part'} brings it to ${inWords(ask.f0Hz, 'hertz')}: leave one of them open.`,
  );
}

/** Given capacitors are what the others are first designed around. */
function startFrom(
  parts: ReturnType<typeof valuedParts>,
  given: Values,
  choice: StageChoice,
): StageChoice {
  const logs = parts.flatMap(({ id, kind }) =>
    kind.series === 'capacitors' && id in given ? [Math.log(given[id])] : [],
  );
  if (logs.length === 0) return choice;
  return { ...choice, farads: Math.exp(logs.reduce((a, b) => a + b) / logs.length) };
}

/** What the stage is asked for, the most important first; without an asked gain, that of its design. */
function targetsOf(topology: Topology, ask: StageAsk, designed: Values): Target[] {
  const targets: Target[] = [{ figure: 'f0', wanted: ask.f0Hz, of: (f) => f.f0Hz }];
  if (ask.q !== undefined) targets.push({ figure: 'Q', wanted: ask.q, of: (f) => f.q! });
  if (topology.gain === 'settable' || topology.gain === 'inverting')
    targets.push({
      figure: 'gain',
      wanted: ask.gain ?? topology.figures(designed).gain,
      of: (f) => f.gain,
    });
  return targets;
}

function solve(
  topology: Topology,
  start: Values,
  free: readonly string[],
  targets: readonly Target[],
): Values | undefined {
  const logs = free.map((id) => Math.log(start[id]));
  const valuesAt = (at: readonly number[]): Values => ({
    ...start,
    ...Object.fromEntries(free.map((id, i) => [id, Math.exp(at[i])])),
  });
  const off = (at: readonly number[]): number[] => {
    const figures = topology.figures(valuesAt(at));
    return targets.map(({ wanted, of }) => Math.log(of(figures) / wanted));
  };
  const size = (r: readonly number[]) => Math.max(...r.map(Math.abs));
  let now = off(logs);
  for (let step = 0; step < MOST_STEPS; step++) {
    if (!now.every(Number.isFinite)) return undefined;
    if (size(now) < CLOSE) return valuesAt(logs);
    const move = newtonStep(off, logs, now);
    // Half the step as long as it leads away.
    let factor = Math.min(1, LONGEST / size(move));
    let next = now;
    let at = logs;
    for (let halving = 0; halving < 30; halving++, factor /= 2) {
      at = logs.map((x, i) => x - factor * move[i]);
      next = off(at);
      if (size(next) < size(now)) break;
    }
    if (!(size(next) < size(now))) return size(now) < 1e-10 ? valuesAt(logs) : undefined;
    at.forEach((x, i) => (logs[i] = x));
    now = next;
  }
  return undefined;
}

function newtonStep(
  off: (at: readonly number[]) => number[],
  at: readonly number[],
  now: readonly number[],
): number[] {
  const step = 1e-6;
  const slopes = new Matrix(now.length, at.length);
  at.forEach((_, j) => {
    const moved = (by: number) => off(at.map((x, i) => (i === j ? x + by : x)));
    const [up, down] = [moved(step), moved(-step)];
    now.forEach((_, i) => slopes.set(i, j, (up[i] - down[i]) / (2 * step)));
  });
  return pseudoInverse(slopes, 1e-9)
    .mmul(Matrix.columnVector([...now]))
    .to1DArray();
}
