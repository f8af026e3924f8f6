import { AcAnalysis } from '@/core/analysis/ac/ac';
import { netsOf, type Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { levelsDb } from '@/core/response/response';
import { deadResistances } from './dead-resistance';
import type { Movable } from './movable';

/** What may be true of the board: parts, and how far each is off as a logarithm; none where all is ordinary. */
export type Possibility = ReadonlyMap<string, number>;

/** One thing to do, and what each possibility says of what comes of it. */
export type NextStep =
  | {
      kind: 'level';
      net: string;
      hz: number;
      /** dB as the take counts them. */
      expected: { parts: string[]; db: number }[];
      apartDb: number;
    }
  | {
      kind: 'resistance';
      /** With the power off. */
      between: [string, string];
      expected: { parts: string[]; ohms: number }[];
    }
  | {
      /** Lift one leg and measure it. */
      kind: 'part';
      part: string;
      field: string;
      expected: { parts: string[]; value: number }[];
    };

/** What a level is read to, dB, and a resistance, as a part of it. */
const READ_DB = 0.1;
const READ_OHMS = 0.003;
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
  frequenciesHz: readonly number[];
  gainDb: number;
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

function compared(values: readonly number[], sd: number): Pick<Candidate, 'pairs' | 'apart'> {
  let [pairs, apart] = [0, Infinity];
  for (const [i, a] of values.entries())
    for (const b of values.slice(i + 1)) {
      const sds = Math.abs(a - b) / sd;
      if (sds < CLEAR) continue;
      pairs++;
      apart = Math.min(apart, sds);
    }
  return { pairs, apart: pairs > 0 ? apart : 0 };
}

function levelCandidates(request: NextRequest): Candidate[] {
  const { circuit, movables, possible, frequenciesHz, gainDb } = request;
  const [from, to] = [frequenciesHz[0] / BEYOND, frequenciesHz[frequenciesHz.length - 1] * BEYOND];
  const hz = Float64Array.from(
    { length: POINTS },
    (_, k) => from * (to / from) ** (k / (POINTS - 1)),
  );
  const analysis = new AcAnalysis(circuit);
  const nominal = analysis.values.slice();
  const nets = netsOf(circuit);
  const levelsWith = (off: Possibility) => {
    analysis.values.set(nominal);
    for (const [part, x] of off)
      for (const parameter of parametersOf(movables, part))
        analysis.values[parameter] *= Math.exp(x);
    analysis.update();
    return analysis.voltages(nets, hz).map(levelsDb);
  };
  try {
    const exact = levelsWith(new Map());
    const found = possible.map(levelsWith);
    // What the others may do, each moved by one standard deviation.
    const moved = othersOf(request).map((m) => levelsWith(new Map([[m.part, m.usual]])));
    return nets.flatMap((net, n) => {
      const highest = Math.max(...exact[n]);
      if (highest < -DEEPEST_DB) return [];
      return Array.from(hz, (at, k): Candidate => {
        const values = found.map((levels) => levels[n][k]);
        const spread = moved.reduce((sum, levels) => sum + (levels[n][k] - exact[n][k]) ** 2, 0);
        const deep = values.some((db) => db < highest - DEEPEST_DB);
        const told = compared(values, Math.sqrt(spread + READ_DB ** 2));
        return {
          ...(deep ? { pairs: 0, apart: 0 } : told),
          step: {
            kind: 'level',
            net,
            hz: round(at),
            expected: possible.map((p, i) => ({ parts: [...p.keys()], db: values[i] + gainDb })),
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

const parametersOf = (movables: readonly Movable[], part: string): readonly number[] =>
  movables.find((m) => m.part === part)?.parameters ?? [];

/** What blurs a measurement: every value that is not in question. */
const othersOf = ({ movables, possible }: NextRequest): readonly Movable[] =>
  movables.filter((m) => !possible.some((p) => p.has(m.part)));

/** Frequencies are asked for as they are typed. */
const round = (hz: number): number => Number(hz.toPrecision(2));

function resistanceCandidates(request: NextRequest): Candidate[] {
  const { circuit, possible } = request;
  const exact = deadResistances(circuit, new Map());
  const found = possible.map((p) => deadResistances(circuit, p));
  const moved = othersOf(request).map((m) =>
    deadResistances(circuit, new Map([[m.part, m.usual]])),
  );
  return [...exact].flatMap(([key, { between, ohms }]): Candidate[] => {
    const values = found.map((all) => all.get(key)?.ohms);
    if (!values.every((v) => v !== undefined)) return [];
    const spread = moved.reduce(
      (sum, all) => sum + Math.log((all.get(key)?.ohms ?? ohms) / ohms) ** 2,
      0,
    );
    return [
      {
        ...compared(values.map(Math.log), Math.sqrt(spread + READ_OHMS ** 2)),
        step: {
          kind: 'resistance',
          between,
          expected: possible.map((p, i) => ({ parts: [...p.keys()], ohms: values[i] })),
        },
      },
    ];
  });
}

/** The likeliest part by itself. */
function partStep({ circuit, movables, possible }: NextRequest): NextStep | null {
  const part = possible.flatMap((p) => [...p.keys()])[0] as string | undefined;
  const [parameter] = part === undefined ? [] : parametersOf(movables, part);
  if (part === undefined || (parameter as number | undefined) === undefined) return null;
  const { name, value } = new AcAnalysis(circuit).system.parameters[parameter];
  return {
    kind: 'part',
    part,
    field: name,
    expected: possible.map((p) => ({
      parts: [...p.keys()],
      value: value * Math.exp(p.get(part) ?? 0),
    })),
  };
}
