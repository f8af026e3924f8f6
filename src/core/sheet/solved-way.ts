import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { messageOf, ReedError } from '@/core/errors';
import { highestOnGrid } from '@/core/response/extremes';
import { spaced, type Landmark } from '@/core/response/landmarks';
import { SCAN_POINTS } from '@/core/response/reader';
import { readMeasure, ResponseReader, type Measured } from '@/core/response/readings';
import { levelsDb, responseOf } from '@/core/response/response';
import { sampleTogether, type SampledTogether } from '@/core/response/sample';
import { jointsOf, type Joint } from './joints';
import { pathLandmarks } from './landmarks';
import { contextOf } from './layers';
import { outNet, outputNet, portNet } from './nets';
import { placedPath, type PartOwner, type PathVersion } from './path-circuit';
import { searchedAround } from './reader-options';
import type { Output, Reading, SheetDesign, Stage } from './schema';
import type { Span } from './version-key';

/** One curve of a lens, over frequencies of its own. */
export interface LayerTrace {
  frequenciesHz: Float64Array;
  levelDb: Float64Array;
  phaseDegrees: Float64Array;
}

/** A reading's value for one layer, or why it has none. */
export type ReadingResult = { measured: Measured } | { error: string };

/** A way of a sheet as it is solved. */
export interface WayRequest {
  design: SheetDesign;
  way: number;
  version: PathVersion;
  /** What is shown. */
  span: Span;
}

/** A picture narrower than this gets so many points at least. */
const NARROW = 30;
const LEAST_POINTS = 64;
/** Frequencies this close are one: an end of the picture may be its neighbour on the grid but for rounding. */
const SAME = 1e-8;

/**
 * One way in one version, solved for a picture: its curve, its readings, the heights and joints
 * along it. One sampling of the end of the way, with all that lies along it, serves everything.
 */
export class SolvedWay {
  readonly trace: LayerTrace;
  readonly analysis: AcAnalysis;
  readonly owners: ReadonlyMap<string, PartOwner>;
  private readonly landmarks: readonly Landmark[];
  private readonly sampled: SampledTogether;
  /** What was sampled: the end of the way, then the stages' outputs. */
  private readonly nets: readonly string[];
  private readonly reader: ResponseReader;
  /** Readers of further outputs, by net. */
  private readonly readers = new Map<string, ResponseReader>();
  private readonly results = new Map<string, ReadingResult>();
  /** The sampled frequencies that are shown, from one to before the other. */
  private readonly shownFrom: number;
  private readonly shownTo: number;
  private readonly levels: (Float64Array | undefined)[] = [];

  /**
   * @param retired a way that is no longer shown: its equations are taken over where they fit
   * @throws ReedError where the circuit cannot be solved, or nothing is joined to its end
   */
  constructor(
    readonly key: string,
    private readonly request: WayRequest,
    retired?: SolvedWay,
  ) {
    const { design, way, version, span } = request;
    const { circuit, owners } = placedPath(design, way, version);
    this.owners = owners;
    this.analysis = retired?.analysis.take(circuit) ? retired.analysis : new AcAnalysis(circuit);
    const out = outNet(design, way);
    if (!this.analysis.system.netIndex.has(out)) throw nothingHeard();
    this.landmarks = pathLandmarks(design.ways[way], version);
    this.nets = [...new Set([out, ...design.ways[way].stages.flatMap((s) => this.netOf(s) ?? [])])];
    this.sampled = sampleTogether((hz) => this.analysis.voltages(this.nets, hz), {
      ...this.searched,
      landmarks: this.landmarks,
      maxPoints: SCAN_POINTS,
      also: Float64Array.from(
        span.toHz / span.fromHz < NARROW
          ? spaced(span.fromHz, span.toHz, LEAST_POINTS)
          : [span.fromHz, span.toHz],
      ),
    });
    const { frequenciesHz } = this.sampled;
    this.shownFrom = frequenciesHz.findIndex((hz) => hz >= span.fromHz * (1 - SAME));
    this.shownTo = frequenciesHz.findLastIndex((hz) => hz <= span.toHz * (1 + SAME)) + 1;
    this.reader = this.readerAt(out, this.sampled.traces[0]);
    const shown = this.shown(frequenciesHz);
    const [re, im] = [this.sampled.traces[0].re, this.sampled.traces[0].im].map((x) =>
      this.shown(x),
    );
    const phaseDegrees = this.reader.phasesOf(shown, { re, im });
    this.trace = { frequenciesHz: shown, levelDb: this.levelsAt(0), phaseDegrees };
  }

  get version(): PathVersion {
    return this.request.version;
  }

  /** A reading at the end of the way or at the output it names. */
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

  /** Highest level of each stage's output over the picture's frequencies, dB re the source, by id. */
  peaksDb(stages: readonly Stage[]): Record<string, number> {
    return Object.fromEntries(
      stages.flatMap((stage) => {
        const index = this.nets.indexOf(this.netOf(stage) ?? '');
        if (index < 0) return [];
        return [[stage.id, highestOnGrid(this.trace.frequenciesHz, this.levelsAt(index))]];
      }),
    );
  }

  /** The joints of the way, of the built version, at a frequency. */
  joints(atHz: number): Joint[] {
    return jointsOf(this.request.design, this.request.way, atHz, this);
  }

  private netOf(stage: Stage): string | undefined {
    const net = portNet(this.request.design, this.request.way, stage.id);
    return net !== undefined && this.analysis.system.netIndex.has(net) ? net : undefined;
  }

  private shown(values: Float64Array): Float64Array {
    return values.slice(this.shownFrom, this.shownTo);
  }

  /** Levels of a sampled net over what is shown. */
  private levelsAt(index: number): Float64Array {
    const { re, im } = this.sampled.traces[index];
    return (this.levels[index] ??= levelsDb({ re: this.shown(re), im: this.shown(im) }));
  }

  private get searched(): Span {
    return searchedAround(this.request.span);
  }

  private readerOf(at: Output): ResponseReader {
    const { design, way } = this.request;
    const found = outputNet(design, at, way);
    if (!found || !this.analysis.system.netIndex.has(found.net))
      throw new ReedError(
        'range',
        'The output it was read at is gone or bypassed: put its stage back, or pin the reading elsewhere.',
      );
    let reader = this.readers.get(found.net);
    if (!reader) this.readers.set(found.net, (reader = this.readerAt(found.net)));
    return reader;
  }

  private readerAt(net: string, trace?: ComplexTrace): ResponseReader {
    return new ResponseReader(responseOf(this.analysis, net), {
      span: this.searched,
      landmarks: this.landmarks,
      context: contextOf(this.request.design),
      ...(trace ? { scanned: { frequenciesHz: this.sampled.frequenciesHz, ...trace } } : {}),
    });
  }
}

const nothingHeard = () =>
  new ReedError(
    'circuit',
    'Nothing is joined to the output yet: go on from the input, then listen at a point.',
  );
