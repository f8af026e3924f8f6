import { AcAnalysis } from '@/core/analysis/ac/ac';
import { messageOf } from '@/core/errors';
import { readingContextOf } from '@/core/design/bands';
import type { Landmark } from '@/core/response/landmarks';
import { highestOf, type Curve } from '@/core/response/extremes';
import {
  readMeasure,
  ResponseReader,
  type Measured,
  type ReadingContext,
} from '@/core/response/readings';
import { levelsDb, responseOf, type Response } from '@/core/response/response';
import { sampleResponse } from '@/core/response/sample';
import { jointFrequency, jointsOf, type Joint } from './joints';
import { layerName } from './layer-name';
import { pathLandmarks } from './landmarks';
import { exactValues, followsAsk } from './make';
import { pathCircuit, stageOutNet, type PathVersion } from './path-circuit';
import type { Reading, Sheet, SheetDesign, Stage, Way } from './schema';
import { stageCard, type StageCard } from './stage-card';
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
export interface EvaluatedStage extends Partial<StageCard> {
  id: string;
  /** The values that meet its target. */
  exact?: Readonly<Record<string, number>>;
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
        const key = versionKey(design, wayIndex, version, span, contextOf(design));
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
      stages: evaluateStages(way, built),
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

/** What the readings of a design's layers go by: its ask, as long as it is made by it. */
const contextOf = (design: SheetDesign): ReadingContext | undefined =>
  followsAsk(design) && !design.bank ? readingContextOf(design.ask) : undefined;

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
    const landmarks = pathLandmarks(way, version);
    this.reader = new ResponseReader(response, {
      span: { fromHz: span.fromHz / BEYOND, toHz: span.toHz * BEYOND },
      landmarks,
      context: contextOf(design),
    });
    this.trace = layerTrace(this.reader, response, span, landmarks, 400);
  }

  read({ measure }: Reading): ReadingResult {
    const key = JSON.stringify(measure);
    let result = this.results.get(key);
    if (!result) {
      try {
        result = { measured: readMeasure(this.reader, measure) };
      } catch (error) {
        result = { error: messageOf(error) };
      }
      this.results.set(key, result);
    }
    return result;
  }

  /** Highest level of each net over the picture's frequencies; all are asked for together. */
  peaksDb(nets: readonly string[]): Map<string, number> {
    const grid = this.trace.frequenciesHz;
    const solve = (frequenciesHz: Float64Array) =>
      this.analysis.solve({ frequenciesHz, probes: nets }).probes;
    const onGrid = solve(grid);
    return new Map(
      nets.map((net) => {
        const level: Curve = (hz) => levelsDb(solve(hz)[net]);
        return [net, highestOf(level, grid, { values: levelsDb(onGrid[net]), fine: 0.01 }).value];
      }),
    );
  }
}

/** A curve over the picture's span, dense where it bends, its phase on the reader's turns. */
function layerTrace(
  reader: ResponseReader,
  response: Response,
  span: Span,
  landmarks: readonly Landmark[],
  maxPoints: number,
): LayerTrace {
  const sampled = sampleResponse(response, { ...span, landmarks, maxPoints });
  const { frequenciesHz } = sampled;
  return {
    frequenciesHz,
    levelDb: levelsDb(sampled),
    phaseDegrees: reader.phasesOf(frequenciesHz, sampled),
  };
}

function evaluateStage(stage: Stage): EvaluatedStage {
  const result: EvaluatedStage = { id: stage.id };
  const attempt = (compute: () => void) => {
    try {
      compute();
    } catch (error) {
      result.problem ??= messageOf(error);
    }
  };
  attempt(() => (result.exact = exactValues(stage)));
  attempt(() => Object.assign(result, stageCard(stage)));
  return result;
}

/** Every stage by itself, and how high its output comes within the whole built path. */
function evaluateStages(way: Way, built: SolvedVersion | undefined): EvaluatedStage[] {
  const netOf = (stage: Stage) => (stage.bypassed ? '' : stageOutNet(way, stage.id));
  const nets = [...new Set(way.stages.map(netOf))].filter((net) => net !== '');
  let peaks = new Map<string, number>();
  let problem: string | undefined;
  try {
    if (built && nets.length > 0) peaks = built.peaksDb(nets);
  } catch (error) {
    problem = messageOf(error);
  }
  return way.stages.map((stage) => {
    const result = evaluateStage(stage);
    result.problem ??= stage.bypassed ? undefined : problem;
    return { ...result, peakDb: peaks.get(netOf(stage)) };
  });
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
    const moved = { ...way, stages };
    const analysis = new AcAnalysis(pathCircuit(moved, sheet.parts, 'built'));
    const response = responseOf(analysis, 'out');
    const landmarks = pathLandmarks(moved, 'built');
    const span = { fromHz: sheet.view.fromHz, toHz: sheet.view.toHz };
    const reader = new ResponseReader(response, { span, landmarks, context: contextOf(sheet) });
    return layerTrace(reader, response, span, landmarks, 240);
  });
}
