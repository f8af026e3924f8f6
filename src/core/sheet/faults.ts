import { quoted } from '@/core/text';
import { hasTopology, topologyOf } from '@/core/topologies';
import { valuedParts } from '@/core/topologies/instantiate';
import { mainQuantity, quantityProblem } from '@/core/parts/quantities';
import type { SheetDesign, Stage } from './schema';

/** Something wrong with a document: where, and words that follow the name of the place. */
export interface Fault {
  path: string;
  message: string;
}

/** A second entry with the id of another, in a list whose entries are found by their ids. */
export function repeatedId(
  list: readonly { id: string }[],
  path: string,
  noun: string,
): Fault | null {
  const seen = new Set<string>();
  for (const [i, { id }] of list.entries()) {
    if (seen.has(id))
      return { path: `${path}[${i}]`, message: `a second ${noun} has the id ${quoted(id)}` };
    seen.add(id);
  }
  return null;
}

/** What is wrong with a design beyond its single fields. */
export function designFault(design: SheetDesign, at: string): Fault | null {
  const { ask, ways, readings, bank } = design;
  if (ask.topology !== undefined && !hasTopology(ask.topology))
    return { path: `${at}ask.topology`, message: `no topology is called ${quoted(ask.topology)}` };
  const repeated =
    repeatedId(ways, `${at}ways`, 'path') ?? repeatedId(readings, `${at}readings`, 'reading');
  if (repeated) return repeated;
  for (const [w, way] of ways.entries()) {
    const fault =
      repeatedId(way.stages, `${at}ways[${w}].stages`, 'stage') ??
      way.stages
        .map((stage, s) => stageFault(stage, `${at}ways[${w}].stages[${s}]`))
        .find((f) => f !== null);
    if (fault) return fault;
  }
  if (!bank) return null;
  if (bank.channels.length !== ways.length || bank.channels.some((c, i) => c.id !== ways[i].id))
    return {
      path: `${at}bank`,
      message: 'its channels must be the ways, in the same order',
    };
  return null;
}

/** A stage must name a known topology and give every part of it a value, and only those. */
export function stageFault(stage: Stage, path: string): Fault | null {
  if (!hasTopology(stage.topology))
    return { path, message: `no topology is called ${quoted(stage.topology)}` };
  const known = valuedParts(topologyOf(stage.topology));
  for (const { id, kind } of known) {
    if (!(id in stage.values)) return { path, message: `the value of ${id} is missing` };
    const problem = quantityProblem(mainQuantity(kind)!, stage.values[id]);
    if (problem) return { path: `${path}.values.${id}`, message: problem };
  }
  const extra = Object.keys(stage.values).find((part) => !known.some((k) => k.id === part));
  return extra ? { path, message: `the topology has no part ${quoted(extra)}` } : null;
}
