import { acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit, type Part } from '@/core/circuit/schema';
import { mainHz, type Ask } from '@/core/design/ask';
import { netInStage, prefixOf } from './nets';
import {
  beginNet,
  endParts,
  partNames,
  pathCircuit,
  SOURCE,
  stageParts,
  waysLeaving,
  wayParts,
  type CircuitDesign,
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

interface Impedance {
  re: number;
  im: number;
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

/**
 * Impedance both ways and loading loss at every joint of a built way. Each side is solved alone,
 * with a test current of 1 A at the joint.
 */
export function jointsOf(design: CircuitDesign, index: number, atHz: number): Joint[] {
  const way = design.ways[index];
  const active = way.stages.filter((s) => !s.bypassed);
  const whole = pathCircuit(design, index, 'built');
  const before = beginNet(design, index);
  const names = partNames(way.stages);
  // A stage's parts hang on the net before it; those of the stages behind it are found by walking on.
  const nets = [before, ...active.map((s) => netInStage(design, index, s, heardOf(s).net))];
  const placed = active.map((stage, i) =>
    stageParts(design, index, stage, 'built', names.get(stage.id)!, nets[i]),
  );
  // Ways that leave a stage load it, and belong to it here.
  const leaving = active.map((s) => waysLeaving(design, index, s.id));
  leaving.forEach((ways, i) => placed[i].push(...ways.flatMap((w) => wayParts(design, w))));
  const end = endParts(way.to, nets[active.length], prefixOf(design, index), design.drivers);
  const own = new Set([...placed.flat(), ...end].map((p) => p.id));
  // What stands before the way, with the other ways that bear on it.
  const outside = whole.parts
    .filter((p) => !own.has(p.id))
    .map((p) => (p.id === SOURCE && p.kind === 'voltage-source' ? { ...p, acVolts: 0 } : p));
  // Perfect at its foot: a way that begins at the bare source.
  const perfect = before === 'in';

  return nets.map((net, j): Joint => {
    const upstream = [...outside, ...placed.slice(0, j).flat()];
    const downstream = [...placed.slice(j).flat(), ...end];
    const source = j === 0 && perfect ? { re: 0, im: 0 } : looking(upstream, net, atHz);
    const load = downstream.length === 0 ? { re: Infinity, im: 0 } : looking(downstream, net, atHz);
    const loadOhms = Math.hypot(load.re, load.im);
    const sourceOhms = Math.hypot(source.re, source.im);
    const total = Math.hypot(source.re + load.re, source.im + load.im);

    return {
      before: j === 0 ? 'source' : active[j - 1].id,
      after: j === active.length ? 'load' : active[j].id,
      sourceOhms,
      loadOhms,
      // Nothing is lost from a source without resistance, nor into an open end.
      lossDb: sourceOhms === 0 || loadOhms === Infinity ? 0 : 20 * Math.log10(loadOhms / total),
      atHz,
    };
  });
}

/** Stands across the net while it is measured, so that an op-amp's bare input is no floating net. */
const ACROSS_SIEMENS = 1e-9;
/** Less than this is nothing: the net is open. */
const OPEN_SIEMENS = 1e-15;

/** The impedance seen when looking into a net; infinite where nothing draws current from it. */
function looking(parts: Part[], net: string, atHz: number): Impedance {
  const probe: Part[] = [
    { id: 'I-test', kind: 'current-source', from: '0', to: net, acAmps: 1 },
    { id: 'R-test', kind: 'resistor', a: net, b: '0', ohms: 1 / ACROSS_SIEMENS },
  ];
  const { re, im } = acResponse(makeCircuit([...parts, ...probe]), {
    frequenciesHz: [atHz],
    probes: [net],
  }).probes[net];
  // 1 / Z is what was measured less what was put across.
  const square = re[0] ** 2 + im[0] ** 2;
  // A voltage source, or the output of an op-amp without resistance of its own.
  if (square === 0) return { re: 0, im: 0 };
  const g = re[0] / square - ACROSS_SIEMENS;
  const b = -im[0] / square;
  const size = g * g + b * b;
  return size < OPEN_SIEMENS ** 2 ? { re: Infinity, im: 0 } : { re: g / size, im: -b / size };
}
