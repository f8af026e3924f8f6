import { AcAnalysis } from '@/core/analysis/ac/ac';
import { Adjoint } from '@/core/analysis/sensitivity/adjoint';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { baseOf, type Reference } from './measures/measure';
import { readMeasure, ResponseReader, type Measure } from './readings';
import { responseOf } from './response';

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
  const adjoint = new Adjoint(analysis, probe);
  const bearing = adjoint.bearing();
  const at = (hz: number) => adjoint.parts(Float64Array.of(hz), bearing);
  const slopeAt = (hz: number) => adjoint.slopes(Float64Array.of(hz)).levelByLogF[0];
  const list = (value: (i: number) => number) =>
    bearing.map((p, i) => ({
      part: analysis.system.parameters[p].part,
      parameter: analysis.system.parameters[p].name,
      value: value(i),
    }));
  const none = () => 0;
  /** What each part does to the level that others are counted from. */
  const pull = (reference: Reference): ((i: number) => number) => {
    if (reference.from === 'level') return none;
    const parts = at(baseOf(reader, reference).hz);
    return (i) => parts[i].levelDb[0];
  };
  switch (measure.measure) {
    case 'level':
    case 'range':
    case 'peak-level':
    case 'plateau': {
      const here = at(measured.atHz);
      const base = 'reference' in measure && measure.reference ? pull(measure.reference) : none;
      return list((i) => here[i].levelDb[0] - base(i));
    }
    case 'phase': {
      const here = at(measured.atHz);
      return list((i) => here[i].phaseDegrees[0]);
    }
    case 'slope': {
      const [a, b] = [at(measure.fromHz), at(measure.toHz)];
      const octaves = Math.log2(measure.toHz / measure.fromHz);
      return list((i) => (b[i].levelDb[0] - a[i].levelDb[0]) / octaves);
    }
    case 'edge': {
      const here = at(measured.value);
      const slope = slopeAt(measured.value);
      const base = pull(measure.reference);
      return list((i) => (measured.value * (base(i) - here[i].levelDb[0])) / slope);
    }
    case 'peak-frequency': {
      // The slope L'(u), u = ln f, stays zero: du = -(dL'/d ln p) / L''. Both are exact slopes,
      // differenced over a step that leaves about a part in 10^8.
      const step = 1e-4;
      const [low, high] = [-step, step].map((by) => measured.value * Math.exp(by));
      const [below, above] = [at(low), at(high)];
      const bend = slopeAt(high) - slopeAt(low);
      if (!(bend < 0))
        throw new ReedError(
          'range',
          `The highest level lies at the end of the span, ${inWords(measured.value, 'hertz')}, not at a peak: a wider span is needed.`,
        );
      return list((i) => (-measured.value * (above[i].levelDb[0] - below[i].levelDb[0])) / bend);
    }
  }
}
