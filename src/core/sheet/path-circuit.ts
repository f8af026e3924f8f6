import type { Circuit, Part, PartOf } from '@/core/circuit/schema';
import { makeCircuit } from '@/core/circuit/schema';
import { numberedName } from '@/core/parts';
import { topologyOf } from '@/core/topologies';
import { instantiate, netsOfTopology, withValues } from '@/core/topologies/instantiate';
import type { Values } from '@/core/topologies/topology';
import { exactValues } from './make';
import type { PartChoices, Stage, Way } from './schema';

type OpAmpModel = PartOf<'op-amp'>['model'];

/** Which version of a path: the mathematics of its targets, or the parts as chosen. */
export type PathVersion = 'ideal' | 'built';

/**
 * The names that a path's parts carry: numbered through from source to load, letter by letter, so
 * that the second stage goes on with R3 where the first ended with R2.
 */
export function partNames(stages: readonly Stage[]): Map<string, Map<string, string>> {
  const counts = new Map<string, number>();
  const names = new Map<string, Map<string, string>>();
  for (const stage of stages) {
    const own = new Map<string, string>();
    for (const { id, kind } of netsOfTopology(topologyOf(stage.topology)).parts)
      own.set(id, numberedName(counts, kind));
    names.set(stage.id, own);
  }
  return names;
}

/** Net at the output of a stage, within the whole path's circuit. */
export function stageOutNet(way: Way, stageId: string): string {
  const active = way.stages.filter((s) => !s.bypassed);
  return active[active.length - 1]?.id === stageId ? 'out' : `${stageId}.out`;
}

/**
 * The circuit of a path: source V1 (1 V) on net `in`, output on net `out`.
 *
 * "ideal" puts exact values and ideal op-amps in, drives every stage from a perfect buffer and
 * leaves out source resistance and load, so that it is the asked response itself; "built" has the
 * chosen values, the chosen op-amp, and everything loading everything.
 */
export function pathCircuit(
  way: Way,
  parts: PartChoices,
  version: PathVersion,
  title = '',
): Circuit {
  return makeCircuit(
    [
      ...sourceParts(way, version),
      ...chain(way, parts, version),
      ...(version === 'built' ? loadParts(way) : []),
    ],
    title,
  );
}

function sourceParts({ source }: Way, version: PathVersion): Part[] {
  const v1: Part = { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 };
  return version === 'built' && source.ohms > 0
    ? [v1, { id: 'RS', kind: 'resistor', a: 'in', b: 'source', ohms: source.ohms }]
    : [v1];
}

/** What the load's capacitance is called in a path's circuit. */
export const LOAD_CAPACITOR = 'CL';

export function loadParts({ load }: Way, net = 'out'): Part[] {
  const parts: Part[] = [];
  if (load.ohms !== null)
    parts.push({ id: 'RL', kind: 'resistor', a: net, b: '0', ohms: load.ohms });
  if (load.farads !== null)
    parts.push({ id: LOAD_CAPACITOR, kind: 'capacitor', a: net, b: '0', farads: load.farads });
  return parts;
}

function chain(way: Way, parts: PartChoices, version: PathVersion): Part[] {
  const names = partNames(way.stages);
  const active = way.stages.filter((s) => !s.bypassed);
  const model: OpAmpModel = version === 'ideal' ? 'ideal' : parts.opAmp.model;
  const first = version === 'built' && way.source.ohms > 0 ? 'source' : 'in';
  if (active.length === 0) return [wire('bypass', first, 'out')];
  let from = first;
  return active.flatMap((stage, i) => {
    const out = i === active.length - 1 ? 'out' : `${stage.id}.out`;
    const values: Values = version === 'ideal' ? exactValues(stage) : stage.values;
    const placed = stageParts(stage, values, model, names.get(stage.id)!, from, out);
    from = out;
    if (version === 'built' || i === active.length - 1) return placed;
    from = `${stage.id}.buffered`;
    return [...placed, wire(`${stage.id}.buffer`, out, from)];
  });
}

/** A perfect connection that draws nothing from its first net. */
function wire(id: string, from: string, to: string): Part {
  return {
    id,
    kind: 'voltage-amplifier',
    plus: to,
    minus: '0',
    inPlus: from,
    inMinus: '0',
    gain: 1,
  };
}

/** The parts of one stage between two nets; inner nets carry the stage's id. */
export function stageParts(
  stage: Stage,
  values: Values,
  opAmpModel: OpAmpModel,
  names: Map<string, string>,
  from: string,
  out: string,
): Part[] {
  return instantiate(topologyOf(stage.topology).drawing, {
    dataOf: withValues(values, opAmpModel),
    partName: (local) => names.get(local)!,
    netName: (local) => (local === 'in' ? from : local === 'out' ? out : `${stage.id}.${local}`),
  });
}
