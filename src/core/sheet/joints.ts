import { acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit, type Part } from '@/core/circuit/schema';
import { mainHz, type Ask } from '@/core/design/ask';
import { loadParts, partNames, stageParts } from './path-circuit';
import type { PartChoices, Way } from './schema';

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
 * Impedance both ways and loading loss at every joint of a built path. Each side is solved alone,
 * with a test current of 1 A at the joint.
 */
export function jointsOf(way: Way, parts: PartChoices, atHz: number): Joint[] {
  const active = way.stages.filter((s) => !s.bypassed);
  const names = partNames(way.stages);
  const placed = active.map(
    (stage) => (from: string, out: string) =>
      stageParts(stage, stage.values, parts.opAmp.model, names.get(stage.id)!, from, out),
  );

  return Array.from({ length: active.length + 1 }, (_, j): Joint => {
    const upstream: Part[] = [];
    let at = 'in';
    upstream.push({ id: 'V1', kind: 'voltage-source', plus: at, minus: '0', acVolts: 0 });
    if (way.source.ohms > 0) {
      upstream.push({ id: 'RS', kind: 'resistor', a: at, b: 'source', ohms: way.source.ohms });
      at = 'source';
    }
    for (let i = 0; i < j; i++) upstream.push(...placed[i](at, (at = `${active[i].id}.out`)));
    const source =
      j === 0 && way.source.ohms === 0 ? { re: 0, im: 0 } : looking(upstream, at, atHz);

    const downstream: Part[] = [];
    let from = 'joint';
    for (let i = j; i < active.length; i++)
      downstream.push(...placed[i](from, (from = `${active[i].id}.out`)));
    downstream.push(...loadParts(way, from));
    const load =
      downstream.length === 0 ? { re: Infinity, im: 0 } : looking(downstream, 'joint', atHz);
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
