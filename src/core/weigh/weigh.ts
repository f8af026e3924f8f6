import { AcAnalysis } from '@/core/analysis/ac/ac';
import { noise } from '@/core/analysis/noise/noise';
import { groupDelay, sensitivity } from '@/core/analysis/sensitivity/sensitivity';
import type { Circuit, PartOf } from '@/core/circuit/schema';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import type { Ask } from '@/core/design/ask';
import { designAsk } from '@/core/design/design';
import { designCircuit } from '@/core/design/circuit';
import { messageOf, ReedError } from '@/core/errors';
import { levelsDb } from '@/core/response/response';
import type { Shape } from '@/core/response/prototypes';
import { seededRandom } from './random';
import { judgedBands, type JudgedBands } from './bands';
import type { Candidate } from './candidates';
import { costOf, countParts, DEFAULT_PRICES, type PartCounts, type Prices } from './prices';

type OpAmpModel = PartOf<'op-amp'>['model'];

/** One design of the table, fully designed and solved. Nulls stand where a column means nothing. */
export interface WeighRow {
  id: string;
  shape: Shape | null;
  order: number;
  topology: string;
  name: string;
  /** The complete ask, for taking it. */
  ask: Ask;
  counts: PartCounts;
  worstQ: number | null;
  /** Least gain-bandwidth that keeps the pass band within 0.5 dB of the ideal; null without op-amps. */
  gainBandwidthHz: number | null;
  /** Highest less lowest level over the pass band, dB. */
  rippleDb: number | null;
  /** Least attenuation at the stop frequencies, dB under the pass band's highest. */
  attenuationDb: number | null;
  /** Longest less shortest group delay over the pass band, seconds. */
  delayVariationSeconds: number | null;
  /** Noise at the output, 20 Hz to 20 kHz, volts. */
  outputNoiseVolts: number;
  /** The part that moves the pass band most: dB for one per cent. */
  sensitivity: { part: string; dbPerPercent: number };
  /** Highest inner node over the output's highest level, dB. */
  innerPeakDb: number;
  /** Part of boards with 1 % resistors and 5 % other parts that keep to the ask. */
  yield: number | null;
  cost: number;
  /** Level over frequency, for overlays. */
  trace: { frequenciesHz: Float64Array; levelDb: Float64Array };
  notes: string[];
}

/** A candidate that cannot be designed, and why. */
export interface WeighRefusal {
  id: string;
  shape: Shape | null;
  order: number;
  topology: string;
  refusal: string;
}

export interface WeighOptions {
  prices?: Prices;
  /** Boards for the yield. Default 120. */
  boards?: number;
  /** The op-amp whose noise is counted. */
  opAmp?: OpAmpModel;
}

/** Allowed away from the ideal curve in the pass band by spread parts, dB, where no limits were given. */
const KEEPS_WITHIN_DB = 1;

/** Design and solve one candidate. */
export function weighOne(
  candidate: Candidate,
  options: WeighOptions = {},
): WeighRow | WeighRefusal {
  const { id, shape, order, topology, ask } = candidate;
  try {
    return weighed(candidate, options);
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    return { id, shape, order: ask.order ?? order, topology, refusal: messageOf(error) };
  }
}

function weighed({ id, shape, topology, ask, order }: Candidate, options: WeighOptions): WeighRow {
  const design = designAsk(ask);
  const { circuit } = designCircuit(design, 'ideal');
  const bands = judgedBands(ask);
  const analysis = new AcAnalysis(circuit);
  const levelDb = levelsDb(
    analysis.solve({ frequenciesHz: bands.all, probes: ['out'] }).probes.out,
  );
  const passDb = levelsOf(analysis, bands.pass);
  const stopDb = levelsOf(analysis, bands.stop);
  const top = Math.max(...passDb, -400);
  const counts = countParts(circuit);
  const qs = design.stages
    .flatMap((s) => [s.ask.q, ...(s.ask.poles ?? []).map((p) => p.q)])
    .filter((q) => q !== undefined);
  return {
    id,
    shape,
    order,
    topology,
    name: design.stages[design.stages.length - 1].topology.asWords,
    ask,
    counts,
    worstQ: qs.length > 0 ? Math.max(...qs) : null,
    gainBandwidthHz: counts['op-amp'] > 0 ? gainBandwidthNeeded(design, bands, passDb) : null,
    rippleDb: passDb.length > 0 ? top - Math.min(...passDb) : null,
    attenuationDb: stopDb.length > 0 ? top - Math.max(...stopDb) : null,
    delayVariationSeconds: spreadOf(groupDelay(circuit, 'out', thinned(bands.pass))),
    outputNoiseVolts: outputNoise(design, options.opAmp),
    sensitivity: worstSensitivity(circuit, bands),
    innerPeakDb: innerPeak(circuit, bands, analysis),
    yield: boardYield(circuit, ask, bands, [...passDb], options.boards ?? 120),
    cost: costOf(counts, options.prices ?? DEFAULT_PRICES),
    trace: { frequenciesHz: bands.all, levelDb },
    notes: design.notes,
  };
}

const thinned = (x: Float64Array) => x.filter((_, k) => k % 2 === 0);

function levelsOf(analysis: AcAnalysis, frequenciesHz: Float64Array): number[] {
  if (frequenciesHz.length === 0) return [];
  return [...levelsDb(analysis.solve({ frequenciesHz, probes: ['out'] }).probes.out)];
}

const spreadOf = (x: Float64Array): number => Math.max(...x) - Math.min(...x);

/** Bisected on a log axis with one-pole op-amps; all of them move together. */
function gainBandwidthNeeded(
  design: ReturnType<typeof designAsk>,
  bands: JudgedBands,
  idealDb: readonly number[],
): number {
  const frequencies = thinned(bands.pass);
  const ideal = idealDb.filter((_, k) => k % 2 === 0);
  const { circuit } = designCircuit(design, { gainBandwidthHz: 1e6, dcGainDb: 120 });
  const analysis = new AcAnalysis(circuit);
  const own = analysis.system.parameters.flatMap((p, i) =>
    p.name === 'gainBandwidthHz' ? [i] : [],
  );
  const fine = (hz: number): boolean => {
    for (const i of own) analysis.values[i] = hz;
    analysis.update();
    const found = levelsOf(analysis, frequencies);
    return found.every((db, k) => Math.abs(db - ideal[k]) < 0.5);
  };
  const centre = Math.sqrt(bands.all[0] * bands.all[bands.all.length - 1]);
  let [low, high] = [Math.log(centre), Math.log(centre * 1e7)];
  for (let pass = 0; pass < 9; pass++) {
    const middle = (low + high) / 2;
    if (fine(Math.exp(middle))) high = middle;
    else low = middle;
  }
  return Math.exp(high);
}

function outputNoise(design: ReturnType<typeof designAsk>, model: OpAmpModel | undefined): number {
  const usual = OP_AMPS[0].model;
  const { circuit } = designCircuit(
    design,
    model === undefined || model === 'ideal' ? usual : model,
  );
  return noise(circuit, { probe: 'out', frequenciesHz: [1000], fromHz: 20, toHz: 20_000 }).rmsVolts;
}

function worstSensitivity(circuit: Circuit, bands: JudgedBands): WeighRow['sensitivity'] {
  let worst = { part: '', dbPerPercent: 0 };
  for (const { part, levelDb } of sensitivity(circuit, {
    probe: 'out',
    frequenciesHz: thinned(bands.pass),
  })) {
    if (part === 'V1') continue;
    const most = levelDb.reduce((m, x) => Math.max(m, Math.abs(x)), 0) / 100;
    if (most > worst.dbPerPercent) worst = { part, dbPerPercent: most };
  }
  return worst;
}

/** Every op-amp's output against the path's output. */
function innerPeak(circuit: Circuit, bands: JudgedBands, analysis: AcAnalysis): number {
  const outputs = circuit.parts.flatMap((p) => (p.kind === 'op-amp' ? [p.out] : []));
  const probes = [...new Set([...outputs, 'out'])];
  const solved = analysis.solve({ frequenciesHz: bands.all, probes }).probes;
  const peak = (net: string) => Math.max(...levelsDb(solved[net]));
  const out = peak('out');
  return Math.max(0, ...outputs.map((net) => peak(net) - out));
}

/** Boards of evenly spread parts that keep to the limits, or within a dB of the ideal pass band. */
function boardYield(
  circuit: Circuit,
  ask: Ask,
  bands: JudgedBands,
  idealPass: number[],
  boards: number,
): number | null {
  if (bands.pass.length === 0) return null;
  const pass = bands.pass.filter((_, k) => k % 4 === 0 || k === bands.pass.length - 1);
  const ideal = idealPass.filter((_, k) => k % 4 === 0 || k === idealPass.length - 1);
  const random = seededRandom(1);
  const analysis = new AcAnalysis(circuit);
  const nominal = Float64Array.from(analysis.values);
  const kinds = new Map(circuit.parts.map((p) => [p.id, p.kind]));
  const tolerance = analysis.system.parameters.map(({ part }) => {
    const kind = kinds.get(part);
    return kind === 'resistor'
      ? 0.01
      : kind === 'capacitor' || kind === 'inductor' || kind === 'transconductor'
        ? 0.05
        : 0;
  });
  const { limits } = ask;
  const top = Math.max(...idealPass);
  let good = 0;
  for (let board = 0; board < boards; board++) {
    for (let i = 0; i < nominal.length; i++)
      analysis.values[i] = nominal[i] * (1 + tolerance[i] * (2 * random() - 1));
    analysis.update();
    const level = levelsOf(analysis, pass);
    const kept = limits
      ? Math.max(...level) - Math.min(...level) <= limits.passDb + 0.5 &&
        levelsOf(analysis, bands.stop).every((db) => db <= top - limits.stopDb + 1)
      : level.every((db, k) => Math.abs(db - ideal[k]) <= KEEPS_WITHIN_DB);
    if (kept) good++;
  }
  return good / boards;
}
