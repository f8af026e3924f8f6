import { acResponse } from '@/core/analysis/ac/ac';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { makeCircuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { spaced } from '@/core/response/landmarks';
import { levelDb, levelsDb } from '@/core/response/response';
import { instantiate } from '@/core/topologies/instantiate';
import { transferOf, type StageFigures } from '@/core/topologies/topology';
import type { Stage } from './schema';
import { asDesigned, drawingOf, drawnParts, heardOf, partDataOf, valuesOf } from './stage';

/** What the card of a stage shows of the chosen values, with ideal op-amps. */
export interface StageCard {
  /** What it does, in the words of its topology; a stage wired otherwise has no such figures. */
  figures?: StageFigures;
  /** Parts that should be equal are not: the figures are those of their averages. */
  figuresAreAverages: boolean;
  /** The stage alone over an even log axis. */
  thumbnail: { frequenciesHz: Float64Array; levelDb: Float64Array };
}

const POINTS = 40;
const AUDIBLE = [20, 20_000] as const;
const DECADES_EACH_WAY = 1.2;
/** Figures that promise a curve this close are those of the circuit, dB. */
const AGREES_DB = 0.01;

/** @throws ReedError `range` for values that give no figures */
export function stageCard(stage: Stage): StageCard {
  const designed = asDesigned(stage);
  const values = valuesOf(stage);
  if (!designed) {
    const frequenciesHz = spaced(AUDIBLE[0], AUDIBLE[1], POINTS);
    const levelDb = solvedAlone(stage, frequenciesHz);
    return { figuresAreAverages: false, thumbnail: { frequenciesHz, levelDb } };
  }
  const { topology } = designed;
  const figures = topology.figures(values);
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
  const solved = solvedAlone(stage, frequenciesHz);
  const figuresAreAverages = solved.some(
    (db, k) => db > -100 && Math.abs(db - promised[k]) > AGREES_DB,
  );
  return { figures, figuresAreAverages, thumbnail: { frequenciesHz, levelDb: solved } };
}

/** The stage alone between a perfect source and nothing, with ideal op-amps. */
export function solvedAlone(stage: Stage, frequenciesHz: Float64Array): Float64Array {
  const dataOf = partDataOf(stage, { opAmp: { name: 'ideal', model: 'ideal' } });
  const heard = heardOf(stage).net;
  if (!drawnParts(stage).some((p) => Object.values(p.nets).includes(heard)))
    throw new ReedError('circuit', 'Nothing is joined to its output yet.');
  const parts = instantiate(drawingOf(stage), {
    dataOf,
    partName: (id) => `part.${id}`,
    netName: (net) => net,
  });
  return levelsDb(
    acResponse(makeCircuit([UNIT_SOURCE, ...parts]), { frequenciesHz, probes: [heard] }).probes[
      heard
    ],
  );
}
