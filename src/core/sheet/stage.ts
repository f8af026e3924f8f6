import { isPort, type Drawing, type Port } from '@/core/drawing/drawing';
import type { DrawnPart } from '@/core/drawing/nets';
import { partKindOf } from '@/core/parts';
import type { PartQuantity } from '@/core/parts/part-kind';
import { mainQuantity } from '@/core/parts/quantities';
import { woundOhms } from '@/core/speaker/coils/wind';
import { hasTopology, topologyOf } from '@/core/topologies';
import { netsOfDrawing, type PartData } from '@/core/topologies/instantiate';
import type { StageAsk, Topology, Values } from '@/core/topologies/topology';
import type { ChosenBy, PartChoices, Stage, StagePart } from './schema';

/*
 * A stage is a drawing with values. Designing, figures and explaining are abilities that it has
 * where it was designed as a topology.
 */

/** How it is wired: its own drawing, or that of its topology. */
export function drawingOf(stage: Stage): Drawing {
  if (stage.drawing) return stage.drawing;
  return topologyOf(stage.topology ?? '').drawing;
}

/** What it was designed as; nothing for a circuit that never was any topology’s. */
export const designedAs = ({ topology }: Pick<Stage, 'topology'>): Topology | undefined =>
  topology !== undefined && hasTopology(topology) ? topologyOf(topology) : undefined;

/** Topology and figures of a stage that is still wired as its topology says. */
export function asDesigned(stage: Stage): { topology: Topology; target: StageAsk } | undefined {
  const topology = designedAs(stage);
  return topology && stage.target && !stage.drawing
    ? { topology, target: stage.target }
    : undefined;
}

/** What a stage is called on its card and in lists. */
export const stageName = (stage: Stage): string =>
  stage.name ?? designedAs(stage)?.name ?? 'Own circuit';

/** The same in a few words. */
export const stageShort = (stage: Stage): string =>
  stage.name ?? designedAs(stage)?.short ?? 'own circuit';

const valuesCache = new WeakMap<Stage['parts'], Values>();

/** The main number of every part that has one, by the part's id. */
export function valuesOf({ parts }: Pick<Stage, 'parts'>): Values {
  let values = valuesCache.get(parts);
  if (!values) {
    const entries = Object.entries(parts);
    values = Object.fromEntries(
      entries.flatMap(([id, { value }]) => (value === undefined ? [] : [[id, value]])),
    );
    valuesCache.set(parts, values);
  }
  return values;
}

/** Parts of the given values, all chosen the same way. */
export const partsOf = (values: Values, chosen: ChosenBy = 'fit'): Record<string, StagePart> =>
  Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { value, chosen }]));

/** A part with another value: what made its old one up is gone. */
function revalued(part: StagePart | undefined, value: number, chosen: ChosenBy): StagePart {
  const next = { ...part, value, chosen };
  delete next.made;
  return next;
}

/** The stage with another value of one part; everything else about it stays. */
export const withValue = (
  stage: Stage,
  part: string,
  value: number,
  chosen: ChosenBy = 'hand',
): Stage => ({
  ...stage,
  parts: { ...stage.parts, [part]: revalued(stage.parts[part], value, chosen) },
});

/** The stage with other values, its parts otherwise as they are. */
export const withValues = (stage: Stage, values: Values, chosen: ChosenBy = 'fit'): Stage => ({
  ...stage,
  parts: {
    ...stage.parts,
    ...Object.fromEntries(
      Object.entries(values).map(([id, value]) => [id, revalued(stage.parts[id], value, chosen)]),
    ),
  },
});

/** What each drawn part is: as the stage says, op-amps without a model of their own as the sheet does. */
export function partDataOf(stage: Stage, choices: Pick<PartChoices, 'opAmp'>) {
  return ({ id, kind }: DrawnPart): PartData => {
    const { value, more, losses, wound, model } = stage.parts[id] ?? {};
    const ohms =
      wound && value !== undefined ? woundOhms(value, wound.wireMetres, wound.core) : losses?.ohms;
    return {
      ...(value === undefined ? {} : { value }),
      ...(more ? { more } : {}),
      ...(ohms === undefined ? {} : { lossOhms: ohms }),
      model: model?.model ?? (kind === 'op-amp' ? choices.opAmp.model : undefined),
    };
  };
}

/** The ports of a drawing, in the order they are drawn. */
export const portsOf = (drawing: Drawing): Port[] => drawing.symbols.filter(isPort);

/** The outputs that can be passed on, listened to or read, the main one first. */
export const outputsOf = (stage: Stage): Port[] =>
  portsOf(drawingOf(stage))
    .filter((p) => p.flow === 'out')
    .sort((a, b) => Number(b.net === 'out') - Number(a.net === 'out'));

/** The output that a stage passes on. */
export function heardOf(stage: Stage): Port {
  const outputs = outputsOf(stage);
  return outputs.find((p) => p.name === stage.heard) ?? outputs[0];
}

/** The local net of a part's drawing at one of its outputs, by the port's name. */
export const netOfPort = (stage: Stage, port: string | undefined): string | undefined =>
  (port === undefined ? heardOf(stage) : outputsOf(stage).find((p) => p.name === port))?.net;

/** The parts of a stage's drawing. */
export const drawnParts = (stage: Stage): DrawnPart[] => netsOfDrawing(drawingOf(stage)).parts;

/** What a part's main number is measured in; nothing for a part without one. */
export function quantityOfPart(stage: Stage, id: string): PartQuantity | undefined {
  const part = drawnParts(stage).find((p) => p.id === id);
  return part && mainQuantity(partKindOf(part.kind));
}

/** Whether two rows of stages are drawn alike: the same stages, drawings and outputs, whatever their values. */
export const drawnAlike = (a: readonly Stage[], b: readonly Stage[]): boolean =>
  a.length === b.length &&
  a.every((stage, i) => {
    const other = b[i];
    return (
      stage.id === other.id &&
      stage.topology === other.topology &&
      stage.heard === other.heard &&
      drawingOf(stage) === drawingOf(other)
    );
  });

/** Parts that a stage was designed with and no longer has, and those that it has besides. */
export function partsSinceDesign(stage: Stage): { gone: string[]; added: string[] } {
  const topology = designedAs(stage);
  if (!topology || !stage.drawing) return { gone: [], added: [] };
  const designed = netsOfDrawing(topology.drawing).parts.map((p) => p.id);
  const present = drawnParts(stage).map((p) => p.id);
  return {
    gone: designed.filter((id) => !present.includes(id)),
    added: present.filter((id) => !designed.includes(id)),
  };
}
