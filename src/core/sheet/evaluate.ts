import { AcAnalysis } from '@/core/analysis/ac/ac';
import { messageOf, ReedError } from '@/core/errors';
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
import { exactValues } from './exact';
import { followsAsk } from './make';
import { outNet, outputNet, portNet } from './nets';
import { pathCircuit, type PathVersion } from './path-circuit';
import type { Output, Reading, Sheet, SheetDesign, Stage } from './schema';
import { valuesOf, withValue } from './stage';
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

    const built = solved.get('built');
    return {
      layers: [...solved].map(([id, version]) => ({ id, key: version.key, trace: version.trace })),
      readings: sheet.readings.map((reading) => ({
        id: reading.id,
        results: Object.fromEntries(
          [...solved].map(([id, version]) => [id, version.read(reading)]),
        ),
      })),
      stages: evaluateStages(sheet, wayIndex, built),
      joints: collect(problems, [], () => jointsOf(sheet, wayIndex, jointFrequency(sheet.ask))),
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
      this.versions.set(key, (solved = new SolvedVersion(key, design, wayIndex, version, span)));
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
  private readonly landmarks: readonly Landmark[];
  private readonly reader: ResponseReader;
  /** Readers of further outputs, by net. */
  private readonly readers = new Map<string, ResponseReader>();
  private readonly results = new Map<string, ReadingResult>();

  constructor(
    readonly key: string,
    private readonly design: SheetDesign,
    private readonly way: number,
    version: PathVersion,
    private readonly span: Span,
  ) {
    this.analysis = new AcAnalysis(pathCircuit(design, way, version));
    const out = outNet(design, way);
    if (!this.analysis.system.netIndex.has(out)) throw nothingHeard();
    const response = responseOf(this.analysis, out);
    this.landmarks = pathLandmarks(design.ways[way], version);
    this.reader = this.readerAt(out);
    this.trace = layerTrace(this.reader, response, span, this.landmarks, 400);
  }

  /**
   * A reading of this version, at the end of the way or at the output it names.
   */
  read({ measure, at }: Reading): ReadingResult {
    const key = JSON.stringify([measure, at]);
    let result = this.results.get(key);
    if (!result) {
      try {
        result = { measured: readMeasure(at ? this.readerOf(at) : this.reader, measure) };
      } catch (error) {
        result = { error: messageOf(error) };
      }
      this.results.set(key, result);
    }
    return result;
  }

  private readerOf(at: Output): ResponseReader {
    const found = outputNet(this.design, at, this.way);
    if (!found || !this.analysis.system.netIndex.has(found.net))
      throw new ReedError('range', 'There is no such output here.');
    let reader = this.readers.get(found.net);
    if (!reader) this.readers.set(found.net, (reader = this.readerAt(found.net)));
    return reader;
  }

  private readerAt(net: string): ResponseReader {
    const { span, landmarks } = this;
    return new ResponseReader(responseOf(this.analysis, net), {
      span: { fromHz: span.fromHz / BEYOND, toHz: span.toHz * BEYOND },
      landmarks,
      context: contextOf(this.design),
    });
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

const nothingHeard = () =>
  new ReedError(
    'circuit',
    'Nothing is joined to the output yet: go on from the input, then listen at a point.',
  );

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
  attempt(() => {
    const exact = exactValues(stage);
    if (exact) result.exact = exact;
  });
  attempt(() => Object.assign(result, stageCard(stage)));
  return result;
}

/** Every stage by itself, and how high its output comes within the whole built path. */
function evaluateStages(
  design: SheetDesign,
  index: number,
  built: SolvedVersion | undefined,
): EvaluatedStage[] {
  const way = design.ways[index];
  const netOf = (stage: Stage) => portNet(design, index, stage.id) ?? '';
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

/** The built curve with a control at each of the given places of its travel. */
export function controlVariation(
  sheet: Sheet,
  control: string,
  places: readonly number[],
  wayIndex = 0,
): LayerTrace[] {
  return places.map((at) => {
    const controls = sheet.controls.map((c) => (c.id === control ? { ...c, at } : c));
    return builtTrace({ ...sheet, controls }, wayIndex);
  });
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
    const ways = sheet.ways.map((way, w) => ({
      ...way,
      stages: way.stages.map((s) =>
        w === wayIndex && s.id === stageId ? withValue(s, part, valuesOf(s)[part] * factor) : s,
      ),
    }));
    return builtTrace({ ...sheet, ways }, wayIndex);
  });
}

function builtTrace(sheet: Sheet, wayIndex: number): LayerTrace {
  const analysis = new AcAnalysis(pathCircuit(sheet, wayIndex, 'built'));
  const response = responseOf(analysis, outNet(sheet, wayIndex));
  const landmarks = pathLandmarks(sheet.ways[wayIndex], 'built');
  const span = { fromHz: sheet.view.fromHz, toHz: sheet.view.toHz };
  const reader = new ResponseReader(response, { span, landmarks, context: contextOf(sheet) });
  return layerTrace(reader, response, span, landmarks, 240);
}
