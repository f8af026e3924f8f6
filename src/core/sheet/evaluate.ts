import { AcAnalysis, type ComplexTrace } from '@/core/analysis/ac/ac';
import { messageOf, ReedError } from '@/core/errors';
import { ResponseReader, type Measured } from '@/core/response/readings';
import { levelDb, levelsDb, responseOf, unwrappedDegrees } from '@/core/response/response';
import { sampleResponse } from '@/core/response/sample';
import { topologyOf } from '@/core/topologies';
import { transferOf, type StageFigures, type Topology } from '@/core/topologies/topology';
import { jointFrequency, jointsOf, type Joint } from './joints';
import { layerName } from './layer-name';
import { exactValues } from './make';
import { pathCircuit, stageOutNet, type PathVersion } from './path-circuit';
import type { Reading, Sheet, SheetDesign, Stage, Way } from './schema';
import { versionKey, type Span } from './version-key';

/** One curve of a lens, over frequencies of its own. */
export interface LayerTrace {
  frequenciesHz: Float64Array;
  levelDb: Float64Array;
  phaseDegrees: Float64Array;
}

export type LayerId = 'ideal' | 'built' | `keep:${string}`;

export interface Layer {
  id: LayerId;
  /** Equal keys mean equal curves: a picture drawn once need not be drawn again. */
  key: string;
  trace: LayerTrace;
}

/** A reading's value for one layer, or why it has none. */
export type ReadingResult = { measured: Measured } | { error: string };

export interface EvaluatedReading {
  id: string;
  results: Partial<Record<LayerId, ReadingResult>>;
}

/** Each result stands for itself: one that cannot be had is absent, with the reason in `problem`. */
export interface EvaluatedStage {
  id: string;
  /** Figures of the chosen values, with ideal op-amps. */
  figures?: StageFigures;
  /** The values that meet its target. */
  exact?: Readonly<Record<string, number>>;
  /** The stage alone, level in dB over an even log axis, for its card. */
  thumbnail?: LayerTrace;
  /** Highest level at its output within the whole built path, dB re the source. */
  peakDb?: number;
  problem?: string;
}

export interface Evaluation {
  layers: Layer[];
  readings: EvaluatedReading[];
  stages: EvaluatedStage[];
  joints: Joint[];
  /** What could not be computed, in words. */
  problems: string[];
}

/** Readings are looked for this far beyond the picture. */
const BEYOND = 100;
const THUMBNAIL_POINTS = 40;

/**
 * Everything a sheet shows, from the solver. Results that do not change between two calls are kept:
 * an evaluator lives as long as its sheet is open.
 */
export class SheetEvaluator {
  private readonly versions = new Map<string, SolvedVersion>();

  /** @param wayIndex which path of the sheet */
  evaluate(sheet: Sheet, wayIndex = 0): Evaluation {
    const problems: string[] = [];
    const span = { fromHz: sheet.view.fromHz, toHz: sheet.view.toHz };
    const wanted = layersOf(sheet);
    const solved = new Map<LayerId, SolvedVersion>();
    const used = new Set<string>();
    for (const { id, design, version } of wanted) {
      try {
        const key = versionKey(design, wayIndex, version, span);
        used.add(key);
        solved.set(id, this.solved(key, design, wayIndex, version, span));
      } catch (error) {
        problems.push(`${layerName(id, sheet)}: ${messageOf(error)}`);
      }
    }
    for (const key of this.versions.keys()) if (!used.has(key)) this.versions.delete(key);

    const way = sheet.ways[wayIndex];
    const built = solved.get('built');
    return {
      layers: [...solved].map(([id, version]) => ({ id, key: version.key, trace: version.trace })),
      readings: sheet.readings.map((reading) => ({
        id: reading.id,
        results: Object.fromEntries(
          [...solved].map(([id, version]) => [id, version.read(reading)]),
        ),
      })),
      stages: way.stages.map((stage) => evaluateStage(stage, way, built)),
      joints: collect(problems, [], () => jointsOf(way, sheet.parts, jointFrequency(sheet.ask))),
      problems,
    };
  }

  private solved(
    key: string,
    design: SheetDesign,
    wayIndex: number,
    version: PathVersion,
    span: Span,
  ): SolvedVersion {
    let solved = this.versions.get(key);
    if (!solved)
      this.versions.set(
        key,
        (solved = new SolvedVersion(key, design.ways[wayIndex], design, version, span)),
      );
    return solved;
  }
}

/** What each layer of a sheet is solved from. */
export interface LayerSource {
  id: LayerId;
  design: SheetDesign;
  version: PathVersion;
}

/** The layers of a sheet in the order they are listed: ideal, built, the keeps that are shown. */
export function layersOf(sheet: Sheet): LayerSource[] {
  return [
    { id: 'ideal', design: sheet, version: 'ideal' },
    { id: 'built', design: sheet, version: 'built' },
    ...sheet.keeps
      .filter((k) => k.shown)
      .map((k): LayerSource => ({ id: `keep:${k.id}`, design: k.design, version: 'built' })),
  ];
}

/** One version of one path, solved over the picture's span and ready to be read. */
class SolvedVersion {
  readonly trace: LayerTrace;
  private readonly analysis: AcAnalysis;
  private readonly reader: ResponseReader;
  private readonly results = new Map<string, ReadingResult>();

  constructor(
    readonly key: string,
    way: Way,
    design: SheetDesign,
    version: PathVersion,
    span: Span,
  ) {
    this.analysis = new AcAnalysis(pathCircuit(way, design.parts, version));
    const response = responseOf(this.analysis, 'out');
    const sampled = sampleResponse(response, { ...span, maxPoints: 320 });
    this.trace = layerTrace(sampled.frequenciesHz, sampled);
    this.reader = new ResponseReader(response, {
      fromHz: span.fromHz / BEYOND,
      toHz: span.toHz * BEYOND,
    });
  }

  read({ measure }: Reading): ReadingResult {
    const key = JSON.stringify(measure);
    let result = this.results.get(key);
    if (!result) {
      try {
        result = { measured: this.reader.read(measure) };
      } catch (error) {
        result = { error: messageOf(error) };
      }
      this.results.set(key, result);
    }
    return result;
  }

  /** Highest level of a net over the picture's frequencies. */
  peakDb(net: string): number {
    const { re, im } = this.analysis.solve({
      frequenciesHz: this.trace.frequenciesHz,
      probes: [net],
    }).probes[net];
    return re.reduce((top, x, k) => Math.max(top, levelDb(x, im[k])), -Infinity);
  }
}

export function layerTrace(frequenciesHz: Float64Array, trace: ComplexTrace): LayerTrace {
  return { frequenciesHz, levelDb: levelsDb(trace), phaseDegrees: unwrappedDegrees(trace) };
}

function evaluateStage(stage: Stage, way: Way, built: SolvedVersion | undefined): EvaluatedStage {
  const result: EvaluatedStage = { id: stage.id };
  const attempt = (compute: () => void) => {
    try {
      compute();
    } catch (error) {
      result.problem ??= messageOf(error);
    }
  };
  attempt(() => (result.exact = exactValues(stage)));
  attempt(() => {
    const topology = topologyOf(stage.topology);
    const figures = topology.figures(stage.values);
    if (!Object.values(figures).every((x) => typeof x !== 'number' || Number.isFinite(x)))
      throw new ReedError('range', `${topology.name}: these values give no figures.`);
    result.figures = figures;
    const frequenciesHz = Float64Array.from(
      { length: THUMBNAIL_POINTS },
      (_, k) => figures.f0Hz * 10 ** (-1.2 + (2.4 * k) / (THUMBNAIL_POINTS - 1)),
    );
    result.thumbnail = layerTrace(frequenciesHz, promised(topology, figures, frequenciesHz));
  });
  attempt(() => {
    if (!stage.bypassed && built) result.peakDb = built.peakDb(stageOutNet(way, stage.id));
  });
  return result;
}

/** The response that a stage's figures promise; the conformance test holds it against the solver. */
function promised(
  topology: Topology,
  figures: StageFigures,
  frequenciesHz: Float64Array,
): ComplexTrace {
  const points = Array.from(frequenciesHz, (hz) => transferOf(topology, figures, hz));
  return {
    re: Float64Array.from(points, (h) => h.re),
    im: Float64Array.from(points, (h) => h.im),
  };
}

function collect<T>(problems: string[], fallback: T, compute: () => T): T {
  try {
    return compute();
  } catch (error) {
    problems.push(messageOf(error));
    return fallback;
  }
}

/** The built curve with one part moved by each of the given factors: what a few percent of it do. */
export function partVariation(
  sheet: Sheet,
  stageId: string,
  part: string,
  factors: readonly number[],
  wayIndex = 0,
): LayerTrace[] {
  return factors.map((factor) => {
    const way = sheet.ways[wayIndex];
    const stages = way.stages.map((s) =>
      s.id === stageId ? { ...s, values: { ...s.values, [part]: s.values[part] * factor } } : s,
    );
    const analysis = new AcAnalysis(pathCircuit({ ...way, stages }, sheet.parts, 'built'));
    const sampled = sampleResponse(responseOf(analysis, 'out'), {
      fromHz: sheet.view.fromHz,
      toHz: sheet.view.toHz,
      maxPoints: 200,
    });
    return layerTrace(sampled.frequenciesHz, sampled);
  });
}
