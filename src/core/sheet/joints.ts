import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { PointSolution } from '@/core/analysis/ac/point-solution';
import { minus, ONE, over, plus, size, type Complex } from '@/core/numeric/complex';
import { mainHz, type Ask } from '@/core/design/ask';
import { SILENCE_DB } from '@/core/response/response';
import { netInStage } from './nets';
import {
  beginNet,
  placedPath,
  waysLeaving,
  type CircuitDesign,
  type PartOwner,
} from './path-circuit';
import { heardOf } from './stage';

/** What one stage shows the next where they meet. */
export interface Joint {
  /** Stage ids on both sides; "source" and "load" at the ends. */
  before: string;
  after: string;
  /** Magnitudes at `atHz`; infinite for an open end. */
  sourceOhms: number;
  loadOhms: number;
  /** Level lost because the load draws current: 20 log |Zl / (Zs + Zl)|, dB, zero or negative. */
  lossDb: number;
  atHz: number;
}

/** The frequency joints are judged at: a decade inside the pass band, or the middle of a band. */
export function jointFrequency(ask: Ask): number {
  switch (ask.kind) {
    case 'low-pass':
      return mainHz(ask) / 10;
    case 'high-pass':
      return mainHz(ask) * 10;
    default:
      return mainHz(ask);
  }
}

/** A built way, prepared. */
export interface BuiltWay {
  analysis: AcAnalysis;
  owners: ReadonlyMap<string, PartOwner>;
}

export function builtWay(design: CircuitDesign, index: number): BuiltWay {
  const { circuit, owners } = placedPath(design, index, 'built');
  return { analysis: new AcAnalysis(circuit), owners };
}

/**
 * Impedance both ways and loading loss at every joint of a built way, from one factored solution of
 * the whole: a unit current into the joint sees both sides beside each other, and what the far side
 * draws of it, or of what the sources drive, tells the two apart.
 *
 * @throws ReedError `singular` where the way's equations have no unique solution
 */
export function jointsOf(
  design: CircuitDesign,
  index: number,
  atHz: number,
  built: BuiltWay = builtWay(design, index),
): Joint[] {
  const way = design.ways[index];
  const active = way.stages.filter((s) => !s.bypassed);
  const nets = [
    beginNet(design, index),
    ...active.map((s) => netInStage(design, index, s, heardOf(s).net)),
  ];
  const placeOf = placesAlong(design, index, built.owners);
  const point = built.analysis.at(atHz);

  return nets.map((net, j): Joint => {
    const behind = (part: string) => placeOf(part) >= j;
    const { source, load } = bothWays(built.analysis, point, net, behind);
    const [sourceOhms, loadOhms] = [size(source), size(load)];
    const total = size(plus(source, load));

    return {
      before: j === 0 ? 'source' : active[j - 1].id,
      after: j === active.length ? 'load' : active[j].id,
      sourceOhms,
      loadOhms,
      lossDb: lossDb(sourceOhms, loadOhms, total),
      atHz,
    };
  });
}

/** Nothing is lost from a source without resistance, nor into an open end; all of it from no source. */
function lossDb(sourceOhms: number, loadOhms: number, total: number): number {
  if (sourceOhms === 0 || loadOhms === Infinity) return 0;
  return sourceOhms === Infinity
    ? SILENCE_DB
    : Math.max(SILENCE_DB, 20 * Math.log10(loadOhms / total));
}

/**
 * Where along a way a part stands: the number of its stage, that of the stages for what the way ends
 * in, -1 for all before it. Ways that leave a stage load it, and belong to it here.
 */
function placesAlong(
  design: CircuitDesign,
  index: number,
  owners: BuiltWay['owners'],
): (part: string) => number {
  const active = design.ways[index].stages.filter((s) => !s.bypassed);
  const stages = new Map(active.map((s, i) => [s.id, i]));
  const leaving = new Map(
    active.flatMap((s, i) => waysLeaving(design, index, s.id).map((way) => [way, i] as const)),
  );
  return (part) => {
    const owner = owners.get(part);
    if (!owner) return -1;
    if (owner.way !== index) return leaving.get(owner.way) ?? -1;
    return owner.end ? active.length : owner.stage === undefined ? -1 : stages.get(owner.stage)!;
  };
}

/** Less than this is nothing: the net is open. */
const OPEN_SIEMENS = 1e-15;
/** Less than this, and a net is held: by a source, or by an op-amp without resistance of its own. */
const HELD_OHMS = 1e-9;
/** What is left of a difference by rounding, as a part of its terms. */
const ROUNDING = 1e-12;
/** A voltage less than this, of 1 V at the source, tells little about what is drawn by it. */
const FAINT_VOLTS = 1e-6;

/** The impedances before and behind a net. */
function bothWays(
  analysis: AcAnalysis,
  point: PointSolution,
  net: string,
  behind: (part: string) => boolean,
): { source: Complex; load: Complex } {
  const row = analysis.unknownOf(net);
  const transfers = point.transfersTo(row);
  const together = { re: transfers.re[row], im: transfers.im[row] };
  // Whatever moves the net from before it, the far side draws by its own admittance.
  let x = point.x;
  if (Math.hypot(x.re[row], x.im[row]) < FAINT_VOLTS) x = point.unitInto(strongest(transfers));
  const far = over(point.drawn(row, x, behind), { re: x.re[row], im: x.im[row] });
  const load = size(far) < OPEN_SIEMENS ? OPEN : over(ONE, far);
  if (size(together) < HELD_OHMS) return { source: SHORT, load };
  const all = over(ONE, together);
  const near = minus(all, far);
  // Nothing drives the net but what it is loaded with.
  const isOpen = size(near) < ROUNDING * size(all);
  return { source: isOpen ? OPEN : over(ONE, near), load };
}

const OPEN: Complex = { re: Infinity, im: 0 };
const SHORT: Complex = { re: 0, im: 0 };

/** The equation that moves an unknown most. */
function strongest({ re, im }: { re: Float64Array; im: Float64Array }): number {
  let best = 0;
  re.forEach((_, row) => {
    if (Math.hypot(re[row], im[row]) > Math.hypot(re[best], im[best])) best = row;
  });
  return best;
}
