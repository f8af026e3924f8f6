import { acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { spaced } from '@/core/response/landmarks';
import { levelDb, levelsDb } from '@/core/response/response';
import { topologyOf } from '@/core/topologies';
import { instantiate, withValues } from '@/core/topologies/instantiate';
import {
  transferOf,
  type StageFigures,
  type Topology,
  type Values,
} from '@/core/topologies/topology';
import type { Stage } from './schema';

/** What the card of a stage shows of the chosen values, with ideal op-amps. */
export interface StageCard {
  figures: StageFigures;
  /** Parts that should be equal are not: the figures are those of their averages. */
  figuresAreAverages: boolean;
  /** The stage alone over an even log axis. */
  thumbnail: { frequenciesHz: Float64Array; levelDb: Float64Array };
}

const POINTS = 40;
const DECADES_EACH_WAY = 1.2;
/** Figures that promise a curve this close are those of the circuit, dB. */
const AGREES_DB = 0.01;

/** @throws ReedError `range` for values that give no figures */
export function stageCard(stage: Stage): StageCard {
  const topology = topologyOf(stage.topology);
  const figures = topology.figures(stage.values);
  if (!Object.values(figures).every((x) => typeof x !== 'number' || Number.isFinite(x)))
    throw new ReedError('range', `${topology.name}: these values give no figures.`);
  const away = 10 ** DECADES_EACH_WAY;
  const frequenciesHz = spaced(figures.f0Hz / away, figures.f0Hz * away, POINTS);
  // The conformance test holds promises against the solver, but for circuits of matched parts.
  const promised = frequenciesHz.map((hz) => {
    const { re, im } = transferOf(topology, figures, hz);
    return levelDb(re, im);
  });
  if (!topology.needsMatching)
    return { figures, figuresAreAverages: false, thumbnail: { frequenciesHz, levelDb: promised } };
  const solved = solvedAlone(topology, stage.values, frequenciesHz);
  const figuresAreAverages = solved.some(
    (db, k) => db > -100 && Math.abs(db - promised[k]) > AGREES_DB,
  );
  return { figures, figuresAreAverages, thumbnail: { frequenciesHz, levelDb: solved } };
}

function solvedAlone(
  topology: Topology,
  values: Values,
  frequenciesHz: Float64Array,
): Float64Array {
  const source = { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 } as const;
  const parts = instantiate(topology.drawing, {
    dataOf: withValues(values, 'ideal'),
    partName: (id) => id,
    netName: (net) => net,
  });
  return levelsDb(
    acResponse(makeCircuit([source, ...parts]), { frequenciesHz, probes: ['out'] }).probes.out,
  );
}
