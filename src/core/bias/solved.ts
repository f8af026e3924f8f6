import { AcAnalysis } from '@/core/analysis/ac/ac';
import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { makeCircuit, type Circuit, type Part, type PartOf } from '@/core/circuit/schema';
import { SOURCE } from '@/core/circuit/unit-source';
import type { Drawing } from '@/core/drawing/drawing';
import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import { instantiate } from '@/core/topologies/instantiate';
import type { BiasAsk, BiasFigures, BiasParts } from './stage';

/** A transistor as it rests, with what is left to both its ends. */
export interface Resting {
  base: number;
  emitter: number;
  collector: number;
  /** Into the collector. */
  amps: number;
  baseAmps: number;
  watts: number;
  /** From collector to emitter beyond where it saturates. */
  marginVolts: number;
}

export interface SolvedBias extends Omit<BiasFigures, 'rest'> {
  rest: Record<string, Resting>;
  /** How far its output swings either way before the first transistor saturates or is cut off, peak volts. */
  swingVolts: number;
  /** What it takes of the stage before, and what the load takes of it, dB. */
  sourceDb: number;
  loadDb: number;
}

/** Looked at here: coupling capacitors pass, and transistors are not yet slow. */
const MIDDLE_HZ = 1000;
/** Below this from collector to emitter a small transistor saturates. */
const SATURATES = 0.2;
const NO_LOAD = 1e9;
const INPUT = 'stage.in';

/**
 * What a stage does, solved: at rest with its transistors’ own laws, and for a small signal at 1 kHz.
 *
 * @throws ReedError `convergence` where it finds no rest
 */
export function solvedBias(drawing: Drawing, parts: BiasParts, ask: BiasAsk): SolvedBias {
  const sourceOhms = Math.max(ask.sourceOhms, 1e-3);
  const loaded = circuitOf(drawing, parts, sourceOhms, ask.loadOhms);
  const transistors = loaded.parts.filter((p) => p.kind === 'transistor');
  const rest = restingOf(loaded, transistors);
  const input = voltsAt(loaded, INPUT);
  const open = circuitOf(drawing, parts, sourceOhms, NO_LOAD);
  const gain = signed(loaded, INPUT, 'out');
  // What the source loses on the way in is what the input shows.
  const inputOhms = impedanceFrom(loaded, sourceOhms);
  const outputOhms = outputOf(drawing, parts, sourceOhms);
  return {
    gain,
    inputOhms,
    outputOhms,
    rest,
    swingVolts: swingOf(parts, rest, gain, ask.loadOhms),
    sourceDb: decibels(input),
    loadDb: decibels(Math.abs(voltsAt(loaded, 'out') / voltsAt(open, 'out'))),
  };
}

const decibels = (ratio: number): number => 20 * Math.log10(ratio);

function circuitOf(
  drawing: Drawing,
  parts: BiasParts,
  sourceOhms: number,
  loadOhms: number,
): Circuit {
  return makeCircuit([
    { id: SOURCE, kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
    { id: 'source.ohms', kind: 'resistor', a: 'in', b: INPUT, ohms: sourceOhms },
    { id: 'load.ohms', kind: 'resistor', a: 'out', b: '0', ohms: loadOhms },
    ...stageOf(drawing, parts),
  ]);
}

function stageOf(drawing: Drawing, parts: BiasParts): Part[] {
  return instantiate(drawing, {
    dataOf: ({ id, kind }) => {
      const known = partKindOf(kind);
      const main = mainQuantity(known);
      const { value, model } = parts[id] ?? {};
      return { ...(main ? { value: value ?? main.usual } : {}), model: model?.model };
    },
    partName: (id) => id,
    netName: (net) => (net === 'in' ? INPUT : net),
  });
}

function complexAt(circuit: Circuit, net: string): { re: number; im: number } {
  const { re, im } = new AcAnalysis(circuit).voltage(net, Float64Array.of(MIDDLE_HZ));
  return { re: re[0], im: im[0] };
}

const voltsAt = (circuit: Circuit, net: string): number => {
  const { re, im } = complexAt(circuit, net);
  return Math.hypot(re, im);
};

/** Volts at one net for volts at another, below nought where they go the other way. */
function signed(circuit: Circuit, from: string, to: string): number {
  const [a, b] = [complexAt(circuit, from), complexAt(circuit, to)];
  const size = Math.hypot(b.re, b.im) / Math.hypot(a.re, a.im);
  return Math.sign(a.re * b.re + a.im * b.im) * size;
}

function impedanceFrom(circuit: Circuit, sourceOhms: number): number {
  const { re, im } = complexAt(circuit, INPUT);
  // Rs v / (1 - v); what coupling capacitors add stands at right angles and is left out.
  return (sourceOhms * (re * (1 - re) - im * im)) / ((1 - re) ** 2 + im * im);
}

/** Volts for one ampere into the output, the source at rest. */
function outputOf(drawing: Drawing, parts: BiasParts, sourceOhms: number): number {
  const pushed = makeCircuit([
    { id: 'push', kind: 'current-source', from: '0', to: 'out', acAmps: 1 },
    { id: 'source.ohms', kind: 'resistor', a: '0', b: INPUT, ohms: sourceOhms },
    { id: 'load.ohms', kind: 'resistor', a: 'out', b: '0', ohms: NO_LOAD },
    ...stageOf(drawing, parts),
  ]);
  return complexAt(pushed, 'out').re;
}

function restingOf(
  circuit: Circuit,
  transistors: readonly PartOf<'transistor'>[],
): Record<string, Resting> {
  const { nodes, devices, power } = operatingPoint(circuit);
  return Object.fromEntries(
    transistors.map((q) => {
      const [base, emitter, collector] = [q.base, q.emitter, q.collector].map((n) => nodes[n] ?? 0);
      const [amps, baseAmps] = devices[q.id];
      return [
        q.id,
        {
          base,
          emitter,
          collector,
          amps,
          baseAmps,
          watts: power[q.id],
          marginVolts: collector - emitter - SATURATES,
        },
      ];
    }),
  );
}

/**
 * Either way until the last transistor saturates or carries nothing: up to its own current through what
 * its output works into.
 */
function swingOf(
  parts: BiasParts,
  rest: Record<string, Resting>,
  gain: number,
  loadOhms: number,
): number {
  const ids = Object.keys(rest);
  const last = rest[ids[ids.length - 1]];
  const ohms = parts.RE?.value ?? parts.RC2?.value ?? parts.RC?.value ?? Infinity;
  const work = 1 / (1 / ohms + 1 / loadOhms);
  const emitterMoves = Math.abs(gain) > 1.5 ? 1 / Math.abs(gain) : 0;
  const up = last.amps * work;
  const down = last.marginVolts / (1 + emitterMoves);
  return Math.max(0, Math.min(up, down));
}
