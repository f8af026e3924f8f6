import { makeCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { ReedError } from '@/core/errors';
import { numberedName, partKindOf } from '@/core/parts';
import { driver } from '@/core/parts/kinds/driver';
import { mainQuantity } from '@/core/parts/quantities';
import { quoted } from '@/core/text';
import { instantiate, netsOfDrawing } from '@/core/topologies/instantiate';
import { movedData, movedParts } from './controls';
import { netInStage, outNet, outputNet, prefixOf } from './nets';
import type { SheetDesign, Stage, Way, WayEnd } from './schema';
import { drawnParts, heardOf } from './stage';
import { aboutReference, referenceParts } from './reference-net';
import { ALL_TRUTHS, NO_TRUTHS, stageOf, type Truths } from './truths';

/** Which version of a path: the mathematics of its targets, or the parts as chosen. */
export type PathVersion = 'ideal' | 'built';

/** What a circuit is made of, as far as it bears on it. */
export type CircuitDesign = Pick<SheetDesign, 'parts' | 'source' | 'ways' | 'controls'>;

/** Names of the parts that stand for the source's resistance and the load. */
export const SOURCE_OHMS = 'source.ohms';
export const LOAD_OHMS = 'load.ohms';
export const LOAD_FARADS = 'load.farads';
/** What stands at both ends of a path, and is not of its board. */
export const ENDS: ReadonlySet<string> = new Set([SOURCE_OHMS, LOAD_OHMS, LOAD_FARADS]);

/**
 * The names that a way's parts carry. Those of designed stages are numbered through from source to
 * load, letter by letter, so that the second stage goes on with R3 where the first ended with R2;
 * parts of an own circuit are called as they were drawn, as long as no other is.
 */
export function partNames(stages: readonly Stage[]): Map<string, Map<string, string>> {
  const taken = new Set<string>();
  const names = new Map<string, Map<string, string>>();
  for (const stage of stages) {
    // What is drawn by a topology or by what a slot is asked for is numbered.
    if (!stage.drawing || stage.topology !== undefined || stage.slot) continue;
    const own = new Map<string, string>();
    for (const { id } of drawnParts(stage)) if (!taken.has(id)) own.set(id, id);
    for (const id of own.keys()) taken.add(id);
    names.set(stage.id, own);
  }
  const counts = new Map<string, number>();
  const next = (kind: string): string => {
    const name = numberedName(counts, kind);
    return taken.has(name) ? next(kind) : name;
  };
  for (const stage of stages) {
    const own = names.get(stage.id) ?? new Map<string, string>();
    for (const { id, kind } of drawnParts(stage)) if (!own.has(id)) own.set(id, next(kind));
    names.set(stage.id, own);
  }
  return names;
}

/** The names that the parts of a way have in the circuit of a design. */
export function namesInCircuit(
  design: Pick<SheetDesign, 'ways'>,
  index: number,
): (stage: Stage, part: string) => string {
  const names = partNames(design.ways[index].stages);
  const prefix = prefixOf(design, index);
  return (stage, part) => `${prefix}${names.get(stage.id)?.get(part) ?? part}`;
}

/**
 * The circuit of a way, with everything that bears on it: the source on net `in`, the end of the
 * first way on net `out`, those of further ones named by `outNet`.
 *
 * "ideal" puts exact values and ideal op-amps in, drives every stage from a perfect buffer and
 * leaves out source resistance and load, so that it is the asked response itself; "built" has the
 * chosen values and models, and everything loading everything, ways that share a source with a
 * resistance and ways that leave others included.
 *
 * @throws ReedError `circuit` where a way leaves or ends in something that is not there
 */
export function pathCircuit(
  design: CircuitDesign,
  way: number,
  version: PathVersion,
  title = '',
): Circuit {
  return placedPath(design, way, version, title).circuit;
}

/**
 * The circuit of a way of which only some of what tells built from ideal is true. With none of it it
 * is the ideal one, with all the built.
 *
 * @throws ReedError as `pathCircuit`
 */
export function partlyTrue(design: CircuitDesign, way: number, truths: Truths): Circuit {
  const ways = waysTogether(design, way, truths.size > 0 ? 'built' : 'ideal');
  return placed(design, ways, truths).circuit;
}

/** To what of a sheet a part of its circuit belongs; a part of the source to nothing. */
export interface PartOwner {
  way: number;
  /** The stage it belongs to, or what the way ends in; neither where the way begins. */
  stage?: string;
  end?: true;
}

/** The circuit of a way, as `pathCircuit`, and to what its parts belong, by id. */
export function placedPath(
  design: CircuitDesign,
  way: number,
  version: PathVersion,
  title = '',
): { circuit: Circuit; owners: ReadonlyMap<string, PartOwner> } {
  return placedWays(design, waysTogether(design, way, version), version, title);
}

/** Ways in one circuit, solved together: a bank’s, or all that bear on one. */
export function placedWays(
  design: CircuitDesign,
  ways: readonly number[],
  version: PathVersion,
  title = '',
): { circuit: Circuit; owners: ReadonlyMap<string, PartOwner> } {
  return placed(design, ways, version === 'built' ? ALL_TRUTHS : NO_TRUTHS, title);
}

function placed(design: CircuitDesign, ways: readonly number[], truths: Truths, title = '') {
  const builder = new WayBuilder(design, truths);
  const parts = [...builder.source(), ...ways.flatMap((w) => builder.way(w))];
  return { circuit: makeCircuit(parts, title), owners: builder.owners };
}

/** The ways that a way's voltages depend on, itself included, in the order of the sheet. */
export function waysTogether(
  { ways, source }: Pick<CircuitDesign, 'ways' | 'source'>,
  way: number,
  version: PathVersion,
): number[] {
  const parentOf = (w: number): number => {
    const { from } = ways[w];
    if (from.is === 'source') return -1;
    return from.of.way === undefined ? w : ways.findIndex((o) => o.id === from.of.way);
  };
  const together = new Set<number>();
  const visit = (w: number): void => {
    if (w < 0 || together.has(w)) return;
    together.add(w);
    visit(parentOf(w));
    // Ideal ways leave what they come from alone.
    if (version === 'ideal') return;
    const shared = source.ohms > 0 && parentOf(w) < 0;
    ways.forEach((_, other) => {
      const parent = parentOf(other);
      if (parent === w || (shared && parent < 0)) visit(other);
    });
  };
  visit(way);
  return [...together].sort((a, b) => a - b);
}

/** The ways that leave the outputs of one stage, and those that leave them in turn. */
export function waysLeaving(
  { ways }: Pick<CircuitDesign, 'ways'>,
  index: number,
  stage?: string,
): number[] {
  return ways.flatMap(({ from }, w) =>
    w > index &&
    from.is === 'output' &&
    from.of.way === ways[index].id &&
    (stage === undefined || from.of.stage === stage)
      ? [w, ...waysLeaving({ ways }, w)]
      : [],
  );
}

/** Net at which a built way's first stage hangs. */
export function beginNet(design: CircuitDesign, index: number): string {
  const { from } = design.ways[index];
  if (from.is === 'output') return outputNet(design, from.of, index)?.net ?? 'in';
  if (from.ohms) return `${prefixOf(design, index)}from`;
  return design.source.ohms > 0 ? 'source' : 'in';
}

/** Writes the parts of ways down, one way after the other. */
class WayBuilder {
  readonly owners = new Map<string, PartOwner>();

  constructor(
    private readonly design: CircuitDesign,
    private readonly truths: Truths,
  ) {}

  source(): Part[] {
    const { ohms } = this.design.source;
    const reference = this.truths.has('reference') ? referenceParts(this.design.parts.supply) : [];
    return this.truths.has('source') && ohms > 0
      ? [
          UNIT_SOURCE,
          { id: SOURCE_OHMS, kind: 'resistor', a: 'in', b: 'source', ohms },
          ...reference,
        ]
      : [UNIT_SOURCE, ...reference];
  }

  way(index: number): Part[] {
    const way = this.design.ways[index];
    const begin = this.begin(index);
    const end = this.truths.has('load') ? this.end(way.to, index) : [];
    this.own(begin.parts, { way: index });
    this.own(end, { way: index, end: true });
    return [...begin.parts, ...this.chain(index, begin.net), ...end];
  }

  private own(parts: readonly Part[], owner: PartOwner): void {
    for (const { id } of parts) this.owners.set(id, owner);
  }

  /** Where a way begins. */
  private begin(index: number): { net: string; parts: Part[] } {
    const { design, truths } = this;
    const { from, name } = design.ways[index];
    const prefix = prefixOf(design, index);
    if (from.is === 'source') {
      const net = truths.has('source') && design.source.ohms > 0 ? 'source' : 'in';
      if (!truths.has('source') || !from.ohms) return { net, parts: [] };
      const own = `${prefix}from`;
      return {
        net: own,
        parts: [{ id: `${own}.ohms`, kind: 'resistor', a: net, b: own, ohms: from.ohms }],
      };
    }
    const at = outputNet(design, from.of, index);
    if (!at)
      throw new ReedError(
        'circuit',
        `${quoted(name)} leaves an output of stage ${quoted(from.of.stage)}, which is not there or is bypassed.`,
      );
    if (truths.has('loading')) return { net: at.net, parts: [] };
    const net = `${prefix}from`;
    return { net, parts: [wire(`${prefix}from.buffer`, at.net, net)] };
  }

  private chain(index: number, begin: string): Part[] {
    const { design, truths } = this;
    const way = design.ways[index];
    const names = partNames(way.stages);
    const active = way.stages.filter((s) => !s.bypassed);
    if (active.length === 0) {
      const id = `${prefixOf(design, index)}bypass`;
      const out = outNet(design, index);
      const straight = connection(id, begin, out);
      this.own([straight], { way: index, end: true });
      return [straight];
    }
    let from = begin;
    return active.flatMap((stage, i) => {
      const own = stageParts(design, index, stage, truths, names.get(stage.id)!, from);
      const placed = truths.has('reference') ? aboutReference(own, design.parts.supply) : own;
      from = netInStage(design, index, stage, heardOf(stage).net);
      this.own(placed, { way: index, stage: stage.id });
      if (truths.has('loading') || i === active.length - 1) return placed;
      const buffered = `${prefixOf(design, index)}${stage.id}.buffered`;
      const parts = [...placed, wire(`${buffered}.buffer`, from, buffered)];
      from = buffered;
      return parts;
    });
  }

  private end(to: WayEnd, index: number): Part[] {
    return endParts(to, outNet(this.design, index), prefixOf(this.design, index));
  }
}

/** What a way ends in, hung onto a net. */
export function endParts(to: WayEnd, net: string, prefix = ''): Part[] {
  if (to.is === 'driver') {
    const { model } = to;
    if (model === undefined)
      throw new ReedError(
        'circuit',
        `The loudspeaker ${quoted(to.name)} is not among the drivers of this browser: import the file it came with.`,
      );
    const nets = to.inverted ? { plus: '0', minus: net } : { plus: net, minus: '0' };
    return driver.become({ id: `${prefix}load`, nets, values: {}, model, ground: '0' });
  }
  const parts: Part[] = [];
  if (to.ohms !== null)
    parts.push({ id: `${prefix}${LOAD_OHMS}`, kind: 'resistor', a: net, b: '0', ohms: to.ohms });
  if (to.farads !== null)
    parts.push({
      id: `${prefix}${LOAD_FARADS}`,
      kind: 'capacitor',
      a: net,
      b: '0',
      farads: to.farads,
    });
  return parts;
}

/** A piece of wire. */
const connection = (id: string, from: string, to: string): Part => ({
  id,
  kind: 'voltage-source',
  plus: from,
  minus: to,
});

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

/** The parts of one stage; inner nets carry its id. */
function stageParts(
  design: CircuitDesign,
  index: number,
  stage: Stage,
  truths: Truths,
  names: ReadonlyMap<string, string>,
  from: string,
): Part[] {
  const way: Way = design.ways[index];
  const { drawing, dataOf } = stageOf(stage, design.parts, truths);
  const moved = movedParts(design, way, stage);
  const { net: heard, name } = heardOf(stage);
  // Read off the drawing: an output may lie on the input. A design knows nothing of one drawn since.
  const port = netsOfDrawing(drawing).ports.find((p) => p.flow === 'out' && p.name === name);
  const passedOn = port?.net ?? 'out';
  const parts = instantiate(drawing, {
    dataOf: (part) =>
      movedData(dataOf(part), moved.get(part.id), mainQuantity(partKindOf(part.kind))?.name),
    partName: (local) => `${prefixOf(design, index)}${names.get(local) ?? local}`,
    netName: (local) =>
      local === 'in' ? from : netInStage(design, index, stage, local === passedOn ? heard : local),
  });
  // An output that lies on the input itself: what comes in goes out.
  if (passedOn !== 'in') return parts;
  const out = netInStage(design, index, stage, heard);
  return [...parts, connection(`${prefixOf(design, index)}${stage.id}.straight`, from, out)];
}
