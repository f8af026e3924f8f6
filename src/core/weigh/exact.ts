import { AcAnalysis } from '@/core/analysis/ac/ac';
import { designCircuit } from '@/core/design/circuit';
import type { Design } from '@/core/design/design';
import type { Circuit } from '@/core/circuit/schema';
import { highestOf, lowestOf, type Curve, type Extreme } from '@/core/response/extremes';
import { explored, type Band, type Landmark } from '@/core/response/landmarks';
import { levelsDb, responseOf } from '@/core/response/response';
import { landmarksOf } from '@/core/topologies/figures';

/** Even points a decade; between them grids close in on the design's poles and zeros. */
const PER_DECADE = 10;

/** A design with its exact values and ideal op-amps, ready to be searched. */
export interface ExactDesign {
  circuit: Circuit;
  analysis: AcAnalysis;
  landmarks: Landmark[];
  level: Curve;
}

export function exactDesign(design: Design): ExactDesign {
  const { circuit } = designCircuit(design, 'ideal');
  const analysis = new AcAnalysis(circuit);
  return {
    circuit,
    analysis,
    landmarks: design.stages.flatMap(({ topology, values }) =>
      landmarksOf(topology.kind, topology.figures(values)),
    ),
    level: levelOf(analysis),
  };
}

/** The level of a net, dB, as a curve. */
export function levelOf(analysis: AcAnalysis, net = 'out'): Curve {
  const response = responseOf(analysis, net);
  return (frequenciesHz) => levelsDb(response(frequenciesHz));
}

export const gridOver = (band: Band, { landmarks }: Pick<ExactDesign, 'landmarks'>) =>
  explored(band, landmarks, PER_DECADE);

interface SearchOver {
  /** Of the curve on each grid, where they are known already. */
  values?: readonly Float64Array[];
  fine?: number;
}

/** The highest of a curve over several bands, each with its grid. */
export function highestOver(
  curve: Curve,
  grids: readonly Float64Array[],
  { values, fine }: SearchOver = {},
): Extreme {
  return grids
    .map((grid, i) => highestOf(curve, grid, { values: values?.[i], fine }))
    .reduce((a, b) => (b.value > a.value ? b : a));
}

export function lowestOver(
  curve: Curve,
  grids: readonly Float64Array[],
  { values, fine }: SearchOver = {},
): Extreme {
  return grids
    .map((grid, i) => lowestOf(curve, grid, { values: values?.[i], fine }))
    .reduce((a, b) => (b.value < a.value ? b : a));
}
