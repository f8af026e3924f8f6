import { inWords } from '@/core/quantity/format';
import { ReedError, stopIfAsked } from '@/core/errors';
import type { Circuit } from '@/core/circuit/schema';
import { entryValue } from '@/core/circuit/compile';
import { baseOf, type Reference } from '@/core/response/measures/measure';
import { readMeasure, ResponseReader, type Measure } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { AcAnalysis } from '../ac/ac';
import { slopeShifts } from './moving-point';

/** What one part value does to a response, per unit of relative change (d / d ln value). */
export interface PartSensitivity {
  part: string;
  parameter: string;
  /** dB for a change by a factor e; times 0.01 for one percent. By frequency. */
  levelDb: Float64Array;
  phaseDegrees: Float64Array;
}

export interface SensitivityRequest {
  probe: string;
  frequenciesHz: ArrayLike<number>;
  signal?: AbortSignal;
}

const DB_PER_NEPER = 20 / Math.LN10;
const DEGREES = 180 / Math.PI;

/**
 * Sensitivities of level and phase to every part value, from one direct and one transposed solve a
 * frequency: dV/dp = -y^T (dA/dp) x (S. W. Director, R. A. Rohrer, "The Generalized Adjoint Network
 * and Network Sensitivities", IEEE Trans. Circuit Theory CT-16, 1969). What a value
 * does to the devices by moving their operating point is counted in.
 */
export function sensitivity(
  circuit: Circuit,
  { probe, frequenciesHz, signal }: SensitivityRequest,
): PartSensitivity[] {
  const analysis = new AcAnalysis(circuit, signal);
  return sensitivityOf(analysis, probe, Float64Array.from(frequenciesHz), signal).parts;
}

interface FullSensitivity {
  parts: PartSensitivity[];
  /** d level / d ln f in dB, and group delay in seconds: exact, from dV/ds = -y^T C x. */
  levelByLogF: Float64Array;
  groupDelaySeconds: Float64Array;
}

/** Everything that one direct and one transposed solve a frequency tell of a prepared circuit. */
export function sensitivityOf(
  analysis: AcAnalysis,
  probe: string,
  frequenciesHz: Float64Array,
  signal?: AbortSignal,
): FullSensitivity {
  const unknown = analysis.unknownOf(probe);
  if (unknown < 0)
    throw new ReedError('circuit', `“${probe}” is the ground net: nothing moves it.`, {
      net: probe,
    });
  const { system, values } = analysis;
  const count = frequenciesHz.length;
  const parts = system.parameters.map((p): PartSensitivity => ({
    part: p.part,
    parameter: p.name,
    levelDb: new Float64Array(count),
    phaseDegrees: new Float64Array(count),
  }));
  const levelByLogF = new Float64Array(count);
  const groupDelaySeconds = new Float64Array(count);
  const own = system.entries.map((entry) => entryValue(entry, values));
  const { matrix } = analysis;
  const shifts = slopeShifts(analysis);

  analysis.eachTransfer(unknown, frequenciesHz, (at, yRe, yIm, stride, k, solver) => {
    if ((at & 63) === 0) stopIfAsked(signal);
    const omega = 2 * Math.PI * frequenciesHz[at];
    const { xRe, xIm } = solver;
    const [vr, vi] = [xRe[unknown * stride + k], xIm[unknown * stride + k]];
    const size = vr * vr + vi * vi;
    // -y x / V, with the entry's own s where it is reactive.
    const relative = (row: number, column: number): [number, number] => {
      const [r, c] = [row * stride + k, column * stride + k];
      const re = -(yRe[r] * xRe[c] - yIm[r] * xIm[c]);
      const im = -(yRe[r] * xIm[c] + yIm[r] * xRe[c]);
      return [(re * vr + im * vi) / size, (im * vr - re * vi) / size];
    };
    system.entries.forEach((entry, e) => {
      if (entry.factors.length === 0) return;
      const [re, im] = relative(entry.row, entry.column);
      const [dr, di] = entry.reactive
        ? [-im * omega * own[e], re * omega * own[e]]
        : [re * own[e], im * own[e]];
      for (const [parameter, power] of entry.factors) {
        parts[parameter].levelDb[at] += power * dr * DB_PER_NEPER;
        parts[parameter].phaseDegrees[at] += power * di * DEGREES;
      }
    });
    for (const { parameter, slots } of shifts) {
      for (const { row, column, resistive, reactive } of slots) {
        const [re, im] = relative(row, column);
        parts[parameter].levelDb[at] += (re * resistive - im * omega * reactive) * DB_PER_NEPER;
        parts[parameter].phaseDegrees[at] += (im * resistive + re * omega * reactive) * DEGREES;
      }
    }
    let [sr, si] = [0, 0];
    for (let slot = 0; slot < matrix.rows.length; slot++) {
      if (matrix.c[slot] === 0) continue;
      const [re, im] = relative(matrix.rows[slot], matrix.columns[slot]);
      sr -= im * matrix.c[slot];
      si += re * matrix.c[slot];
    }
    // d ln V / d omega = sr + j si.
    levelByLogF[at] = sr * omega * DB_PER_NEPER;
    groupDelaySeconds[at] = -si;
  });
  return { parts, levelByLogF, groupDelaySeconds };
}

/** Group delay -d phase / d omega at a net, seconds, exact (no differences of phase). */
export function groupDelay(
  circuit: Circuit,
  probe: string,
  frequenciesHz: ArrayLike<number>,
): Float64Array {
  return sensitivityOf(new AcAnalysis(circuit), probe, Float64Array.from(frequenciesHz))
    .groupDelaySeconds;
}

/**
 * d(reading) / d ln(value) for every part value. An edge moves by the part's pull on its level,
 * divided by the slope there; a peak or plateau keeps its level to first order as it moves.
 */
export function readingSensitivity(
  circuit: Circuit,
  probe: string,
  measure: Measure,
  span: { fromHz: number; toHz: number },
): { part: string; parameter: string; value: number }[] {
  const analysis = new AcAnalysis(circuit);
  const reader = new ResponseReader(responseOf(analysis, probe), { span });
  const measured = readMeasure(reader, measure);
  const at = (hz: number) => sensitivityOf(analysis, probe, Float64Array.of(hz));
  const list = (value: (i: number) => number) =>
    analysis.system.parameters.map((p, i) => ({
      part: p.part,
      parameter: p.name,
      value: value(i),
    }));
  const none = () => 0;
  /** What each part does to the level that others are counted from. */
  const pull = (reference: Reference): ((i: number) => number) => {
    if (reference.from === 'level') return none;
    const { parts } = at(baseOf(reader, reference).hz);
    return (i) => parts[i].levelDb[0];
  };
  switch (measure.measure) {
    case 'level':
    case 'range':
    case 'peak-level':
    case 'plateau': {
      const here = at(measured.atHz);
      const base = 'reference' in measure && measure.reference ? pull(measure.reference) : none;
      return list((i) => here.parts[i].levelDb[0] - base(i));
    }
    case 'phase': {
      const here = at(measured.atHz);
      return list((i) => here.parts[i].phaseDegrees[0]);
    }
    case 'slope': {
      const [a, b] = [at(measure.fromHz), at(measure.toHz)];
      const octaves = Math.log2(measure.toHz / measure.fromHz);
      return list((i) => (b.parts[i].levelDb[0] - a.parts[i].levelDb[0]) / octaves);
    }
    case 'edge': {
      const here = at(measured.value);
      const base = pull(measure.reference);
      return list(
        (i) => (measured.value * (base(i) - here.parts[i].levelDb[0])) / here.levelByLogF[0],
      );
    }
    case 'peak-frequency': {
      // The slope L'(u), u = ln f, stays zero: du = -(dL'/d ln p) / L''. Both are exact slopes,
      // differenced over a step that leaves about a part in 10^8.
      const step = 1e-4;
      const [below, above] = [-step, step].map((by) => at(measured.value * Math.exp(by)));
      const bend = above.levelByLogF[0] - below.levelByLogF[0];
      if (!(bend < 0))
        throw new ReedError(
          'range',
          `The highest level lies at the end of the span, ${inWords(measured.value, 'hertz')}, not at a peak: a wider span is needed.`,
        );
      return list(
        (i) => (-measured.value * (above.parts[i].levelDb[0] - below.parts[i].levelDb[0])) / bend,
      );
    }
  }
}
