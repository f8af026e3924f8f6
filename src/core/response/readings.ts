import { formatFixed, inWords } from '@/core/quantity/format';
import { z } from 'zod';
import { ReedError } from '@/core/errors';
import { between, within } from '@/core/quantity/bounds';
import type { QuantityKind } from '@/core/quantity/kinds';
import { findPeak, findZero } from './root';
import { levelDb, phaseDegrees, unwrappedDegrees, type Response } from './response';
import { sampleResponse, type SampledResponse } from './sample';

/** What "down" is counted from. */
const reference = z.discriminatedUnion('from', [
  z.strictObject({ from: z.literal('plateau') }),
  z.strictObject({ from: z.literal('peak') }),
  z.strictObject({ from: z.literal('level'), db: between(-400, 400) }),
  z.strictObject({ from: z.literal('frequency'), atHz: within('hertz') }),
]);

/** What can be read off a response. */
export const measureSchema = z.discriminatedUnion('measure', [
  z.strictObject({ measure: z.literal('level'), atHz: within('hertz') }),
  z.strictObject({ measure: z.literal('phase'), atHz: within('hertz') }),
  z.strictObject({
    measure: z.literal('edge'),
    downDb: between(0.001, 400),
    side: z.enum(['upper', 'lower']),
    reference: reference.default({ from: 'plateau' }),
  }),
  z.strictObject({ measure: z.literal('peak-level') }),
  z.strictObject({ measure: z.literal('peak-frequency') }),
  z.strictObject({ measure: z.literal('plateau') }),
  z.strictObject({ measure: z.literal('slope'), fromHz: within('hertz'), toHz: within('hertz') }),
]);

export type Measure = z.infer<typeof measureSchema>;

/** The kind of number a measure gives. */
export const MEASURE_QUANTITY: Record<Measure['measure'], QuantityKind> = {
  level: 'decibels',
  phase: 'degrees',
  edge: 'hertz',
  'peak-level': 'decibels',
  'peak-frequency': 'hertz',
  plateau: 'decibels',
  slope: 'slope',
};

export interface Measured {
  value: number;
  /** Where on the frequency axis it was read, for the cursor. */
  atHz: number;
}

/** Frequencies are refined to this part of themselves. */
const RELATIVE = 1e-10;

/**
 * Reads numbers off one response. A coarse adaptive scan finds where to look; the number itself is
 * found by asking the response again, never by interpolating between plotted points.
 */
export class ResponseReader {
  private scanned: SampledResponse | undefined;
  private levels: Float64Array | undefined;

  /** @param span the range in which peaks, plateaus and crossings are looked for */
  constructor(
    private readonly response: Response,
    private readonly span: { fromHz: number; toHz: number },
  ) {}

  /**
   * @throws ReedError `range` where the response has no such point within the span
   */
  read(measure: Measure): Measured {
    switch (measure.measure) {
      case 'level':
        return { value: this.levelAt(measure.atHz), atHz: measure.atHz };
      case 'phase':
        return { value: this.phaseAt(measure.atHz), atHz: measure.atHz };
      case 'edge': {
        const atHz = this.edge(measure);
        return { value: atHz, atHz };
      }
      case 'peak-level': {
        const atHz = this.peakHz();
        return { value: this.levelAt(atHz), atHz };
      }
      case 'peak-frequency': {
        const atHz = this.peakHz();
        return { value: atHz, atHz };
      }
      case 'plateau': {
        const atHz = this.plateauHz();
        return { value: this.levelAt(atHz), atHz };
      }
      case 'slope': {
        const octaves = Math.log2(measure.toHz / measure.fromHz);
        if (octaves === 0) throw new ReedError('range', 'A slope needs two different frequencies.');
        const rise = this.levelAt(measure.toHz) - this.levelAt(measure.fromHz);
        return { value: rise / octaves, atHz: Math.sqrt(measure.fromHz * measure.toHz) };
      }
    }
  }

  levelAt(hz: number): number {
    const { re, im } = this.response(Float64Array.of(hz));
    return levelDb(re[0], im[0]);
  }

  /** Phase followed without jumps from the low end of the span. */
  private phaseAt(hz: number): number {
    const { re, im } = this.response(Float64Array.of(hz));
    const here = phaseDegrees(re[0], im[0]);
    const scan = this.scan();
    const along = unwrappedDegrees(scan);
    const after = scan.frequenciesHz.findIndex((f) => f >= hz);
    const near = along[after < 0 ? along.length - 1 : after];
    return here + 360 * Math.round((near - here) / 360);
  }

  private scan(): SampledResponse {
    this.scanned ??= sampleResponse(this.response, { ...this.span, maxPoints: 600 });
    return this.scanned;
  }

  private scanLevels(): Float64Array {
    const { re, im } = this.scan();
    this.levels ??= re.map((x, k) => levelDb(x, im[k]));
    return this.levels;
  }

  private peakHz(): number {
    const x = this.scan().frequenciesHz;
    const levels = this.scanLevels();
    let top = 0;
    levels.forEach((level, k) => {
      if (level > levels[top]) top = k;
    });
    const lower = Math.log(x[Math.max(0, top - 1)]);
    const upper = Math.log(x[Math.min(x.length - 1, top + 1)]);
    const found = Math.exp(findPeak((u) => this.levelAt(Math.exp(u)), lower, upper, 1e-9));
    return this.levelAt(found) > levels[top] ? found : x[top];
  }

  /**
   * The middle of the octave over which the level changes least; among octaves flat to 0.02 dB,
   * the one with the highest level.
   */
  private plateauHz(): number {
    const x = this.scan().frequenciesHz;
    const levels = this.scanLevels();
    let best = { span: Infinity, level: -Infinity, atHz: NaN };
    for (let i = 0, j = 0; i < x.length; i++) {
      while (j < x.length && x[j] < 2 * x[i]) j++;
      if (j === x.length) break;
      const octave = levels.subarray(i, j + 1);
      const highest = octave.reduce((a, b) => Math.max(a, b));
      const span = highest - octave.reduce((a, b) => Math.min(a, b));
      const flat = span < 0.02;
      if (flat ? !(best.span < 0.02) || highest > best.level + 1e-6 : span < best.span) {
        best = { span, level: highest, atHz: x[i] * Math.SQRT2 };
      }
    }
    if (Number.isNaN(best.atHz))
      throw new ReedError(
        'range',
        'The span is too narrow to find a plateau: give it at least an octave.',
      );
    return best.atHz;
  }

  /** Where the level that an edge is counted from is read. */
  referenceHz({ reference }: Pick<Extract<Measure, { measure: 'edge' }>, 'reference'>): number {
    if (reference.from === 'plateau') return this.plateauHz();
    return reference.from === 'frequency' ? reference.atHz : this.peakHz();
  }

  private edge({ downDb, side, reference }: Extract<Measure, { measure: 'edge' }>): number {
    const x = this.scan().frequenciesHz;
    const levels = this.scanLevels();
    const from = this.referenceHz({ reference });
    const base = reference.from === 'level' ? reference.db : this.levelAt(from);
    const target = base - downDb;
    const step = side === 'upper' ? 1 : -1;
    let k = nearestIndex(x, from);
    // Walk away from the reference; the last point still above the target is one end of the bracket.
    if (levels[k] < target) throw this.noEdge(downDb, side, base);
    while (k + step >= 0 && k + step < x.length && levels[k + step] >= target) k += step;
    if (k + step < 0 || k + step >= x.length) throw this.noEdge(downDb, side, base);
    const [a, b] = [Math.log(x[k]), Math.log(x[k + step])].sort((p, q) => p - q);
    const above = (u: number) => this.levelAt(Math.exp(u)) - target;
    return Math.exp(findZero(above, a, b, RELATIVE / 2));
  }

  private noEdge(downDb: number, side: 'upper' | 'lower', base: number): ReedError {
    const where = side === 'upper' ? 'above' : 'below';
    return new ReedError(
      'range',
      `The level never falls ${inWords(downDb, 'decibels')} ${where} its reference (${formatFixed(base, 2)}\u00a0dB), within ${inWords(this.span.fromHz, 'hertz')} to ${inWords(this.span.toHz, 'hertz')}.`,
    );
  }
}

function nearestIndex(x: Float64Array, at: number): number {
  let best = 0;
  x.forEach((f, k) => {
    if (Math.abs(Math.log(f / at)) < Math.abs(Math.log(x[best] / at))) best = k;
  });
  return best;
}
