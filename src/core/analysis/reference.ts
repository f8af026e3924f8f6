import { ReedError } from '@/core/errors';
import { readCircuit } from '@/core/circuit/schema';
import { acResponse } from './ac/ac';
import { operatingPoint } from './dc/operating-point';
import { noise } from './noise/noise';
import { transient } from './transient/transient';

export interface ReferenceVerdict {
  analysis: string;
  /** Largest deviation, in the measure the tolerance is given in. */
  worst: number;
  tolerance: number;
}

interface Reference {
  analysis: string;
  circuit: unknown;
  tolerance: number;
  frequenciesHz: number[];
  probes: Record<string, { re: number[]; im: number[] }>;
  nodes: Record<string, number>;
  probe: string;
  fromHz: number;
  toHz: number;
  spots: { frequencyHz: number; voltsPerRootHz: number }[];
  rmsVolts: number;
  untilSeconds: number;
  stepSeconds: number;
  timesSeconds: number[];
  volts: number[];
}

/**
 * Run the analysis a reference document names, and find how far the engine is from it: relative per
 * point for ac, dc and noise; relative to the largest value of the record for transients.
 *
 * @throws ReedError `document` for a document that is no reference
 */
export function checkReference(document: unknown): ReferenceVerdict {
  if (
    typeof document !== 'object' ||
    document === null ||
    !('analysis' in document) ||
    !('tolerance' in document)
  ) {
    throw new ReedError(
      'document',
      'This is no reference file: it needs “analysis”, “circuit” and “tolerance”.',
    );
  }
  const reference = document as Reference;
  const circuit = readCircuit(reference.circuit);
  const relative = (got: number, want: number) => Math.abs(got - want) / Math.abs(want || 1);
  let errors: number[];
  switch (reference.analysis) {
    case 'ac': {
      const nets = Object.keys(reference.probes);
      const { probes } = acResponse(circuit, {
        frequenciesHz: reference.frequenciesHz,
        probes: nets,
      });
      errors = nets.flatMap((net) =>
        reference.probes[net].re.map(
          (re, k) =>
            Math.hypot(probes[net].re[k] - re, probes[net].im[k] - reference.probes[net].im[k]) /
            Math.hypot(re, reference.probes[net].im[k]),
        ),
      );
      break;
    }
    case 'dc': {
      const { nodes } = operatingPoint(circuit);
      errors = Object.entries(reference.nodes).map(([net, want]) => relative(nodes[net], want));
      break;
    }
    case 'noise': {
      const { probe, fromHz, toHz, spots } = reference;
      const result = noise(circuit, {
        probe,
        fromHz,
        toHz,
        frequenciesHz: spots.map((s) => s.frequencyHz),
      });
      errors = [
        relative(result.rmsVolts, reference.rmsVolts),
        ...spots.map((s, k) => relative(result.spots[k].voltsPerRootHz, s.voltsPerRootHz)),
      ];
      break;
    }
    case 'transient': {
      const { probe, untilSeconds, stepSeconds, timesSeconds, volts } = reference;
      const { probes } = transient(circuit, { untilSeconds, stepSeconds, probes: [probe] });
      const largest = volts.reduce((a, v) => Math.max(a, Math.abs(v)), 0);
      errors = timesSeconds.map(
        (t, k) =>
          Math.abs(
            probes[probe][Math.min(probes[probe].length - 1, Math.round(t / stepSeconds))] -
              volts[k],
          ) / largest,
      );
      break;
    }
    default:
      throw new ReedError(
        'document',
        `“${reference.analysis}” is no analysis known here: ac, dc, noise or transient was expected.`,
      );
  }
  const worst = errors.reduce((a, e) => (e > a || Number.isNaN(e) ? e : a), 0);
  return { analysis: reference.analysis, worst, tolerance: reference.tolerance };
}
