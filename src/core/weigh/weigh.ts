import { AcAnalysis } from '@/core/analysis/ac/ac';
import { noiseOf } from '@/core/analysis/noise/noise';
import type { PartOf } from '@/core/circuit/schema';
import { centreOf, type Ask } from '@/core/design/ask';
import { designCircuit } from '@/core/design/circuit';
import { designAsk, type Design } from '@/core/design/design';
import { messageOf, ReedError } from '@/core/errors';
import { HALF_POWER_DB } from '@/core/response/decibels';
import { explored, type Band } from '@/core/response/landmarks';
import type { Shape } from '@/core/response/prototypes';
import { findZero } from '@/core/numeric/root';
import { topologyOf } from '@/core/topologies';
import { gainBandwidthNeeded } from './bandwidth';
import { boardFigures } from './boards';
import { calmOf, type WorstPart } from './calm';
import type { Candidate } from './candidates';
import { exactDesign, gridOver, highestOver, lowestOver, type ExactDesign } from './exact';
import { innerPeak } from './inner-peak';
import { judgedBands } from './judged';
import { keepingOf, type Keeping } from './keeping';
import { costOf, countParts, DEFAULT_PRICES, type PartCounts, type Prices } from './prices';

type OpAmpModel = PartOf<'op-amp'>['model'];

/** One design of the table, fully designed and solved. Nulls stand where a column means nothing. */
export interface WeighRow {
  id: string;
  shape: Shape | null;
  order: number;
  topology: string;
  /** What it is built as, in words. */
  name: string;
  /** The complete ask, for taking it. */
  ask: Ask;
  counts: PartCounts;
  worstQ: number | null;
  /** Least gain-bandwidth that keeps the pass band within 0.5 dB of the ideal; null without op-amps. */
  gainBandwidthHz: number | null;
  /** Highest less lowest level over the pass band, dB. */
  rippleDb: number | null;
  /** Least attenuation over the stop band, dB under the pass band's highest. */
  attenuationDb: number | null;
  /** Longest less shortest group delay over the pass band, seconds. */
  delayVariationSeconds: number | null;
  /** Width of a notch between the points 3.01 dB under its flat part, hertz. */
  widthHz: number | null;
  /** Noise at the output, 20 Hz to 20 kHz, volts; with ideal op-amps that of the resistors alone. */
  outputNoiseVolts: number;
  /** The part that moves the pass band most: dB for one per cent. */
  sensitivity: WorstPart;
  /** Highest active inner node over the output's highest level, dB; null without active parts. */
  innerPeakDb: number | null;
  /** Of boards with 1 % resistors and 5 % other parts, how many keep to the ask. */
  yield: number;
  /** Of a notch: what nine in ten such boards reach at the asked centre, dB. */
  depthDb: number | null;
  /** Of a peak: what nine in ten stay within, dB of height and part of width. */
  heightErrorDb: number | null;
  widthError: number | null;
  /** Of a shelf or tilt: what nine in ten stay within at its edge, dB. */
  edgeErrorDb: number | null;
  /** Of an all-pass: what nine in ten stay within at its edge, degrees. */
  phaseErrorDegrees: number | null;
  /** Where all this is judged. */
  judged: { pass: Band[]; stop: Band[] };
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
  /** The op-amp whose noise is counted. Default ideal: it has none. */
  opAmp?: OpAmpModel;
}

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

/** Kinds whose level in the pass band is meant to be even, and which are judged by how even it is. */
const isEven = (kind: Ask['kind']) =>
  ['low-pass', 'high-pass', 'band-pass', 'band-stop', 'wide-band', 'all-pass'].includes(kind);

function weighed({ id, shape, topology, ask, order }: Candidate, options: WeighOptions): WeighRow {
  const design = designAsk(ask);
  const exact = exactDesign(design);
  const bands = judgedBands(ask);
  const keeping = keepingOf(ask, bands, exact);
  const { grids, exactDb: values } = keeping;
  const even = isEven(ask.kind);
  const top = highestOver(exact.level, grids, { values }).value;
  const stopGrids = bands.stop.map((band) => gridOver(band, exact));
  const { sensitivity, delayVariationSeconds } = calmOf(exact, grids);
  const counts = countParts(exact.circuit);
  const frequenciesHz = explored(bands.all, exact.landmarks, DRAWN_PER_DECADE);
  return {
    id,
    shape,
    order,
    topology,
    name: topologyOf(topology).asWords,
    ask,
    counts,
    worstQ: worstQ(design),
    gainBandwidthHz: counts['op-amp'] > 0 ? gainBandwidthNeeded(design, keeping) : null,
    rippleDb: even ? top - lowestOver(exact.level, grids, { values }).value : null,
    attenuationDb: stopGrids.length > 0 ? top - highestOver(exact.level, stopGrids).value : null,
    delayVariationSeconds: even ? delayVariationSeconds : null,
    widthHz: ask.kind === 'notch' ? notchWidth(ask, keeping, exact) : null,
    outputNoiseVolts: outputNoise(exact, design, options.opAmp ?? 'ideal'),
    sensitivity,
    innerPeakDb: innerPeak(exact, bands),
    ...boardFigures(exact, ask, bands, keeping, options.boards ?? 120),
    judged: { pass: bands.pass, stop: bands.stop },
    cost: costOf(counts, options.prices ?? DEFAULT_PRICES),
    trace: { frequenciesHz, levelDb: exact.level(frequenciesHz) },
    notes: design.notes,
  };
}

const DRAWN_PER_DECADE = 30;
/** The highest Q that the exact values give; null where every pole is real. */
function worstQ({ stages }: Design): number | null {
  const qs = stages.flatMap(({ topology, values }) => {
    const { q, poles = [] } = topology.figures(values);
    return [q, ...poles.map((p) => p.q)].filter((x) => x !== undefined);
  });
  return qs.length > 0 ? Math.max(...qs) : null;
}

/** Squares of noise settle to this; what is left is a tenth of it. */
const NOISE_SETTLED = 2e-4;

function outputNoise(exact: ExactDesign, design: Design, model: OpAmpModel): number {
  const analysis =
    model === 'ideal' ? exact.analysis : new AcAnalysis(designCircuit(design, model).circuit);
  return noiseOf(analysis, {
    probe: 'out',
    frequenciesHz: [],
    fromHz: 20,
    toHz: 20_000,
    settled: NOISE_SETTLED,
  }).rmsVolts;
}

/** Between the points half the power down on either side of the centre. */
function notchWidth(ask: Ask, { notch }: Keeping, { level }: ExactDesign): number {
  const { centreHz } = centreOf(ask);
  const over = (u: number) =>
    level(Float64Array.of(Math.exp(u)))[0] - (notch!.flatDb - HALF_POWER_DB);
  const side = (farHz: number) => {
    const [a, b] = [Math.log(centreHz), Math.log(farHz)].sort((x, y) => x - y);
    return Math.exp(findZero(over, a, b, 1e-10));
  };
  return side(centreHz * 1000) - side(centreHz / 1000);
}
