import { AcAnalysis } from '@/core/analysis/ac/ac';
import { netsOf, type Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { levelsDb } from '@/core/response/response';
import { deadResistances } from './dead-resistance';
import type { Movable } from './movable';

/** What may be true of the board: parts, and how far each is off as a logarithm; none where all is ordinary. */
export type Possibility = ReadonlyMap<string, number>;

/**
 * One thing to do, and what each possibility says of what comes of it: `sd` is how far a reading may be
 * off by itself, by the tolerances of all others and by how well that possibility’s own values are known;
 * dB of a level, and of all else a part of it.
 */
export type NextStep =
  | {
      kind: 'level';
      net: string;
      hz: number;
      /** dB as the take counts them. */
      expected: { parts: string[]; db: number; sd: number }[];
      apartDb: number;
    }
  | {
      kind: 'resistance';
      /** With the power off. */
      between: [string, string];
      expected: { parts: string[]; ohms: number; sd: number }[];
    }
  | {
      /** Lift one leg and measure it. */
      kind: 'part';
      part: string;
      field: string;
      expected: { parts: string[]; value: number; sd: number }[];
    };

/** What a level is read to, dB, and a resistance, as a part of it. */
const READ_DB = 0.1;
const READ_OHMS = 0.003;
/** And a part with one leg lifted. */
const READ_PART = 0.005;
/** So many standard deviations apart, there is no doubt. */
const CLEAR = 4;
/** A probe finds no level below this, dB under the highest of its net. */
const DEEPEST_DB = 60;
/** Points of a net that are looked at. */
const POINTS = 40;
/** Frequencies about those of the take. */
const BEYOND = 10;

export interface NextRequest {
  circuit: Circuit;
  probe: string;
  movables: readonly Movable[];
  /** Two or more. */
  possible: readonly Possibility[];
  /** Of the take whose levels are gone on with; none where none can be. */
  frequenciesHz: readonly number[];
  /** By how much the take stands above the prediction where parts are off, dB. */
  gainOf: (off: Possibility) => number;
  /** How well it is known how far a part is off that is in question, as a logarithm. */
  knownTo: (part: string) => number;
}

/** How far apart possibilities stand in something that could be measured, in standard deviations. */
interface Candidate {
  step: NextStep;
  /** Pairs of possibilities that it tells apart without doubt. */
  pairs: number;
  /** Of the pair that it tells apart worst of those. */
  apart: number;
}

/**
 * The one measurement that tells possibilities apart: another frequency at the same net, another net,
 * a resistance with the power off, or else the part itself with one leg lifted. Each is held against
 * what the tolerances of all other parts can do to it.
 */
export function nextStep(request: NextRequest): NextStep | null {
  if (request.possible.length < 2) return null;
  const levels = levelCandidates(request);
  const own = best(
    levels.filter(({ step }) => step.kind === 'level' && step.net === request.probe),
  );
  const others = best(levels);
  const ohms = best(resistanceCandidates(request));
  const pairs = (request.possible.length * (request.possible.length - 1)) / 2;
  // The nearest at hand that tells all apart, or that which tells most.
  const inOrder = [own, others, ohms].filter((c) => c !== undefined);
  const enough = inOrder.find((c) => c.pairs === pairs);
  if (enough) return enough.step;
  const most = Math.max(0, ...inOrder.map((c) => c.pairs));
  return most > 0 ? inOrder.find((c) => c.pairs === most)!.step : partStep(request);
}

const best = (candidates: readonly Candidate[]): Candidate | undefined =>
  candidates.reduce<Candidate | undefined>(
    (a, b) => (!a || b.pairs > a.pairs || (b.pairs === a.pairs && b.apart > a.apart) ? b : a),
    undefined,
  );

/** What would be read, and how far that may be off. */
interface Reading {
  value: number;
  sd: number;
}

function compared(readings: readonly Reading[]): Pick<Candidate, 'pairs' | 'apart'> {
  let [pairs, apart] = [0, Infinity];
  for (const [i, a] of readings.entries())
    for (const b of readings.slice(i + 1)) {
      const sds = Math.abs(a.value - b.value) / Math.max(a.sd, b.sd);
      if (sds < CLEAR) continue;
      pairs++;
      apart = Math.min(apart, sds);
    }
  return { pairs, apart: pairs > 0 ? apart : 0 };
}

/** What is in question off by one standard deviation more. */
const more = (off: Possibility, knownTo: NextRequest['knownTo']): Possibility =>
  new Map([...off].map(([part, x]) => [part, x + knownTo(part)]));

function levelCandidates(request: NextRequest): Candidate[] {
  const { circuit, movables, possible, frequenciesHz, gainOf, knownTo } = request;
  if (frequenciesHz.length === 0) return [];
  const [from, to] = [frequenciesHz[0] / BEYOND, frequenciesHz[frequenciesHz.length - 1] * BEYOND];
  const hz = Float64Array.from(
    { length: POINTS },
    (_, k) => from * (to / from) ** (k / (POINTS - 1)),
  );
  const analysis = new AcAnalysis(circuit);
  const nominal = analysis.values.slice();
  const nets = netsOf(circuit);
  // As the take counts them: what moves a level and all of the take alike is not seen in it.
  const levelsWith = (off: Possibility) => {
    const gainDb = gainOf(off);
    analysis.values.set(nominal);
    for (const [part, x] of off)
      for (const parameter of parametersOf(movables, part))
        analysis.values[parameter] *= Math.exp(x);
    analysis.update();
    return analysis.voltages(nets, hz).map((trace) => levelsDb(trace).map((db) => db + gainDb));
  };
  try {
    const gainDb = gainOf(new Map());
    const exact = levelsWith(new Map());
    const found = possible.map(levelsWith);
    const beside = possible.map((p) => levelsWith(more(p, knownTo)));
    // What the others may do, each moved by one standard deviation.
    const moved = othersOf(request).map((m) => levelsWith(new Map([[m.part, m.usual]])));
    return nets.flatMap((net, n) => {
      const highest = Math.max(...exact[n]);
      if (highest - gainDb < -DEEPEST_DB) return [];
      return Array.from(hz, (at, k): Candidate => {
        const spread = moved.reduce((sum, levels) => sum + (levels[n][k] - exact[n][k]) ** 2, 0);
        const blur = Math.sqrt(spread + READ_DB ** 2);
        const deep = found.some((levels) => levels[n][k] < highest - DEEPEST_DB);
        const readings = possible.map((_, i) => ({
          value: found[i][n][k],
          sd: Math.hypot(blur, beside[i][n][k] - found[i][n][k]),
        }));
        const values = readings.map((r) => r.value);
        return {
          ...(deep ? { pairs: 0, apart: 0 } : compared(readings)),
          step: {
            kind: 'level',
            net,
            hz: round(at),
            expected: readings.map(({ value: db, sd }, i) => ({
              parts: named(possible[i]),
              db,
              sd,
            })),
            apartDb: Math.max(...values) - Math.min(...values),
          },
        };
      });
    });
  } catch (error) {
    if (error instanceof ReedError) return [];
    throw error;
  }
}

const named = (possible: Possibility): string[] => [...possible.keys()];

const parametersOf = (movables: readonly Movable[], part: string): readonly number[] =>
  movables.find((m) => m.part === part)?.parameters ?? [];

/** What blurs a measurement: every value that is not in question. */
const othersOf = ({ movables, possible }: NextRequest): readonly Movable[] =>
  movables.filter((m) => !possible.some((p) => p.has(m.part)));

/** Frequencies are asked for as they are typed. */
const round = (hz: number): number => Number(hz.toPrecision(2));

function resistanceCandidates(request: NextRequest): Candidate[] {
  const { circuit, possible, knownTo } = request;
  const exact = deadResistances(circuit, new Map());
  const found = possible.map((p) => deadResistances(circuit, p));
  const beside = possible.map((p) => deadResistances(circuit, more(p, knownTo)));
  const moved = othersOf(request).map((m) =>
    deadResistances(circuit, new Map([[m.part, m.usual]])),
  );
  return [...exact].flatMap(([key, { between, ohms }]): Candidate[] => {
    const logsOf = (all: typeof found) => all.map((one) => Math.log(one.get(key)?.ohms ?? NaN));
    const [values, next] = [logsOf(found), logsOf(beside)];
    if (!values.concat(next).every(Number.isFinite)) return [];
    const spread = moved.reduce(
      (sum, all) => sum + Math.log((all.get(key)?.ohms ?? ohms) / ohms) ** 2,
      0,
    );
    const blur = Math.sqrt(spread + READ_OHMS ** 2);
    const readings = values.map((value, i) => ({ value, sd: Math.hypot(blur, next[i] - value) }));
    return [
      {
        ...compared(readings),
        step: {
          kind: 'resistance',
          between,
          expected: readings.map(({ value, sd }, i) => ({
            parts: named(possible[i]),
            ohms: Math.exp(value),
            sd,
          })),
        },
      },
    ];
  });
}

/** The likeliest part by itself. */
function partStep({ circuit, movables, possible, knownTo }: NextRequest): NextStep | null {
  const part = possible.flatMap(named)[0] as string | undefined;
  const movable = movables.find((m) => m.part === part);
  const [parameter] = movable?.parameters ?? [];
  if (!movable || part === undefined || (parameter as number | undefined) === undefined)
    return null;
  const { name, value } = new AcAnalysis(circuit).system.parameters[parameter];
  return {
    kind: 'part',
    part,
    field: name,
    expected: possible.map((p) => ({
      parts: named(p),
      value: value * Math.exp(p.get(part) ?? 0),
      sd: Math.hypot(READ_PART, p.has(part) ? knownTo(part) : movable.usual),
    })),
  };
}
