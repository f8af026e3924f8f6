import { ReedError } from '@/core/errors';
import { liftsByGain, mainHz, type Ask } from '@/core/design/ask';
import { consistent } from '@/core/design/consistent';
import { defaultTarget } from '@/core/sheet/default-target';
import { realValues } from '@/core/sheet/real-values';
import {
  freshStageId,
  makeStage,
  readingsFollow,
  redesign,
  refit,
  viewFollow,
} from '@/core/sheet/make';
import { exactValues } from '@/core/sheet/exact';
import type { Drawing } from '@/core/drawing/drawing';
import { partKindOf } from '@/core/parts';
import { designOf } from '@/core/sheet/design-of';
import { grafted, withDrawing, type Graft } from '@/core/sheet/graft';
import {
  designedAs,
  drawingOf,
  drawnParts,
  outputsOf,
  valuesOf,
  withValue,
  withValues,
} from '@/core/sheet/stage';
import { checkAskFields } from '@/core/sheet/gate';
import {
  SHEET_LIMITS,
  type Keep,
  type PartChoices,
  type Reading,
  type Source,
  type StagePart,
  type Stage,
  type Way,
} from '@/core/sheet/schema';
import { cut, isVisible } from '@/core/text';
import type { Topology } from '@/core/topologies/topology';
import { newId, now } from '@/store/ids';
import { edit, useSession, type SheetContent } from '@/store/sheet-session';

/*
 * What a person does to a sheet. Each action is one step of history; what an action throws is said
 * where it was asked for, and the sheet stays as it was.
 */

const WAY = 0;

function withWay(content: SheetContent, change: (way: Way) => Way): Pick<SheetContent, 'ways'> {
  return { ways: content.ways.map((way, i) => (i === WAY ? change(way) : way)) };
}

function withStage(
  content: SheetContent,
  id: string,
  change: (stage: Stage) => Stage,
): Pick<SheetContent, 'ways'> {
  return withWay(content, (way) => ({
    ...way,
    stages: way.stages.map((s) => (s.id === id ? change(s) : s)),
  }));
}

/** Change the ask; the stages that come from it are designed anew. */
export function changeAsk(change: Partial<Ask>): void {
  const { content, frame } = useSession.getState();
  if (!content || !frame) return;
  // Before anything is worked out from it: a number beyond all bounds is told where it was typed.
  checkAskFields(change);
  const after = consistent(content.ask, change);
  edit(
    (c) => ({
      ask: after,
      ...withWay(c, (way) => redesign(way, after, c.parts)),
      readings: readingsFollow(c.readings, c.ask, after),
    }),
    undefined,
    viewFollow(frame.view, content.ask, after),
  );
}

/** Take a whole ask over, as one of the weighed designs has it. */
export function takeAsk(ask: Ask): void {
  const tidy = Object.fromEntries(Object.entries(ask).filter(([, v]) => v !== undefined)) as Ask;
  edit((c) => ({
    ask: tidy,
    ...withWay(c, (way) => redesign(way, tidy, c.parts)),
    readings: readingsFollow(c.readings, c.ask, tidy),
  }));
}

/** Take other stages; a gain they cannot have is let go. */
export function changeTopologies(topology: Topology): void {
  const ask = useSession.getState().content?.ask;
  const gainDb = ask && !liftsByGain(ask.kind) ? ask.gainDb : undefined;
  const unity = topology.gain === 'unity' && gainDb !== undefined && gainDb !== 0;
  const settable = topology.gain === 'settable' && gainDb !== undefined && gainDb < 0.5;
  const given = topology.gain === 'given' && gainDb !== undefined;
  changeAsk({
    topology: topology.id,
    ...(unity ? { gainDb: 0 } : settable || given ? { gainDb: undefined } : {}),
  });
}

export function setTitle(title: string): void {
  if (!isVisible(title)) throw new ReedError('range', 'A sheet needs a name.');
  edit(() => ({ title: cut(title.trim(), SHEET_LIMITS.name) }));
}

export function setValue(stageId: string, part: string, value: number, group?: string): void {
  if (!(value > 0))
    throw new ReedError(
      'range',
      `${part} must be greater than zero: no part has the value ${value}.`,
    );
  edit((c) => withStage(c, stageId, (s) => withValue(s, part, value)), group);
}

/** Put a part back to the nearest real value, or to the exact one. */
export function resetValue(stageId: string, part: string, to: 'exact' | 'nearest'): void {
  edit((c) =>
    withStage(c, stageId, (s) => {
      const exact = exactValues(s);
      const topology = designedAs(s);
      if (!exact || !topology || !(part in exact)) return s;
      const value = to === 'exact' ? exact[part] : realValues(topology, exact, c.parts)[part];
      return withValue(s, part, value, 'fit');
    }),
  );
}

export function addStage(topology: Topology, after: string | null): string {
  let id = '';
  edit((c) => {
    const way = c.ways[WAY];
    id = freshStageId(way);
    const target = defaultTarget(topology, mainHz(c.ask));
    const stage = makeStage(id, topology, target, c.parts, 'hand');
    const at = after === null ? 0 : way.stages.findIndex((s) => s.id === after) + 1;
    return withWay(c, (w) => ({
      ...w,
      stages: [...w.stages.slice(0, at), stage, ...w.stages.slice(at)],
    }));
  });
  return id;
}

export function duplicateStage(id: string): void {
  edit((c) => {
    const way = c.ways[WAY];
    const at = way.stages.findIndex((s) => s.id === id);
    const copy: Stage = { ...way.stages[at], id: freshStageId(way), origin: 'hand' };
    return withWay(c, (w) => ({
      ...w,
      stages: [...w.stages.slice(0, at + 1), copy, ...w.stages.slice(at + 1)],
    }));
  });
}

/**
 * Change the circuit of a stage.
 *
 * @returns the net, in the changed drawing, of the pin that the next part goes on from
 */
export function graftStage(
  id: string,
  graft: Graft,
  next?: { part: string; pin: string },
): string | undefined {
  let net: string | undefined;
  edit((c) =>
    withStage(c, id, (s) => {
      const changed = grafted(s, graft);
      net = next && drawnParts(changed).find((p) => p.id === next.part)?.nets[next.pin];
      return { ...changed, origin: 'hand' };
    }),
  );
  return net;
}

/** Another drawing of the same circuit: its main output elsewhere, a net with a name, all of it tidied. */
export function redraw(id: string, change: (drawing: Drawing) => Drawing): void {
  edit((c) =>
    withStage(c, id, (s) => withDrawing({ ...s, origin: 'hand' }, change(drawingOf(s)), s.parts)),
  );
}

/** A stage drawn as its topology says again; parts that were put in go. */
export function ungraft(id: string): void {
  edit((c) =>
    withStage(c, id, (s) => {
      const topology = designedAs(s);
      if (!topology || !s.drawing) return s;
      const real = realValues(topology, exactValues(s) ?? {}, c.parts);
      const bare = { ...s };
      delete bare.drawing;
      delete bare.heard;
      const parts = Object.fromEntries(
        Object.entries(real).map(([part, value]) => [
          part,
          s.parts[part] ?? { value, chosen: 'fit' as const },
        ]),
      );
      return { ...bare, parts };
    }),
  );
}

/** What one part is: a device or op-amp by its name; nothing for what is usual. */
export function setModel(stageId: string, part: string, model: StagePart['model']): void {
  edit((c) =>
    withStage(c, stageId, (s) => {
      const own = { ...(s.parts[part] ?? { chosen: 'hand' as const }) };
      if (model) own.model = structuredClone(model);
      else delete own.model;
      return { ...s, parts: { ...s.parts, [part]: own } };
    }),
  );
}

/** Pass another output of a stage on. */
export function setHeard(stageId: string, port: string): void {
  edit((c) =>
    withStage(c, stageId, (s) => ({
      ...s,
      heard: outputsOf(s)[0]?.name === port ? undefined : port,
    })),
  );
}

/** A shaft that turns a potentiometer. */
export function addControl(stageId: string, part: string, name: string): void {
  edit((c) => {
    const stage = c.ways[WAY].stages.find((s) => s.id === stageId);
    const kind = stage && drawnParts(stage).find((p) => p.id === part)?.kind;
    const quantity = kind && partKindOf(kind).quantities.find((q) => q.name === 'turn');
    if (!stage || !quantity)
      throw new ReedError('range', 'Only a potentiometer has a shaft to turn.');
    const at = stage.parts[part]?.more?.turn ?? quantity.usual;
    const law = 'even' as const;
    const moves = [{ stage: stageId, part, quantity: 'turn', from: 0, to: 1, law }];
    return { controls: [...c.controls, { id: newId('c'), name, is: 'turn', at, moves }] };
  });
}

export function setControl(id: string, at: number): void {
  edit(
    (c) => ({ controls: c.controls.map((k) => (k.id === id ? { ...k, at } : k)) }),
    `control ${id}`,
  );
}

export function removeControl(id: string): void {
  edit((c) => ({ controls: c.controls.filter((k) => k.id !== id) }));
}

export function removeStage(id: string): void {
  edit((c) => withWay(c, (way) => ({ ...way, stages: way.stages.filter((s) => s.id !== id) })));
}

export function toggleBypass(id: string): void {
  edit((c) => withStage(c, id, (s) => ({ ...s, bypassed: !s.bypassed })));
}

export function moveStage(id: string, to: number): void {
  edit((c) =>
    withWay(c, (way) => {
      const stage = way.stages.find((s) => s.id === id);
      if (!stage || to < 0 || to >= way.stages.length) return way;
      const rest = way.stages.filter((s) => s.id !== id);
      return { ...way, stages: [...rest.slice(0, to), stage, ...rest.slice(to)] };
    }),
  );
}

type Target = NonNullable<Stage['target']>;

/** A stage with values for other figures; how it is wired, heard and bypassed stays. */
function redesigned(
  stage: Stage,
  target: Target,
  start: { farads?: number; ohms?: number },
  parts: PartChoices,
  origin: Stage['origin'],
): Stage {
  const topology = designedAs(stage);
  if (!topology) return stage;
  const made = makeStage(stage.id, topology, target, parts, origin, start);
  // Parts that were taken out since stay out; those that were put in keep their values.
  const drawn = new Set(drawnParts(stage).map((p) => p.id));
  const values = Object.entries(valuesOf(made)).filter(([id]) => drawn.has(id));
  const { name, drawing, heard, bypassed } = stage;
  return withValues(
    {
      ...made,
      bypassed,
      parts: stage.parts,
      ...(name === undefined ? {} : { name }),
      ...(drawing ? { drawing } : {}),
      ...(heard === undefined ? {} : { heard }),
    },
    Object.fromEntries(values),
  );
}

export type TargetChange = Partial<
  Pick<Target, 'f0Hz' | 'q' | 'gain' | 'boost' | 'depth' | 'zeroHz'>
>;

/** Change what one stage is designed for; it no longer follows the ask. */
export function retargetStage(
  id: string,
  change: TargetChange & { own?: Record<string, number> },
  group?: string,
): void {
  edit(
    (c) =>
      withStage(c, id, (s) => {
        if (!s.target) return s;
        const own = change.own ? { ...s.target.own, ...change.own } : s.target.own;
        const target = moveMany({ ...s.target, ...change, ...(own ? { own } : {}) }, s.target.f0Hz);
        return redesigned(s, target, { farads: s.farads, ohms: s.ohms }, c.parts, 'hand');
      }),
    group,
  );
}

/** A stage of many poles is moved as a whole. */
function moveMany(target: Target, fromHz: number): Target {
  const factor = target.f0Hz / fromHz;
  if (!target.poles || factor === 1) return target;
  return {
    ...target,
    poles: target.poles.map((p) => ({ ...p, f0Hz: p.f0Hz * factor })),
    ...(target.zerosHz ? { zerosHz: target.zerosHz.map((z) => z * factor) } : {}),
  };
}

/** Start a stage's values from another capacitor or impedance level; empty for the usual one. */
export function changeStart(id: string, start: { farads?: number; ohms?: number }): void {
  edit((c) =>
    withStage(c, id, (s) => (s.target ? redesigned(s, s.target, start, c.parts, s.origin) : s)),
  );
}

/** What may be changed of a way's end. */
export interface LoadChange {
  name?: string;
  ohms?: number | null;
  farads?: number | null;
}

export function setSource(change: Partial<Source>): void {
  if (change.ohms !== undefined && change.ohms < 0)
    throw new ReedError('range', 'A source resistance cannot be negative.');
  if (change.volts !== undefined && !(change.volts > 0))
    throw new ReedError('range', 'The source voltage must be greater than zero.');
  edit((c) => ({ source: { ...c.source, ...change } }));
}

export function setLoad(change: LoadChange): void {
  for (const value of [change.ohms, change.farads]) {
    if (typeof value === 'number' && !(value > 0))
      throw new ReedError('range', 'A load must be greater than zero; empty the field for none.');
  }
  edit((c) =>
    withWay(c, ({ to, ...way }) => {
      // A loudspeaker is what it is; only its name here can be changed.
      const { name = to.name } = change;
      return { ...way, to: to.is === 'driver' ? { ...to, name } : { ...to, ...change } };
    }),
  );
}

/** Change where parts come from; every value is chosen again. */
export function changeParts(change: Partial<PartChoices>): void {
  edit((c) => {
    const parts = { ...c.parts, ...change };
    const sameSeries = (['resistors', 'capacitors', 'inductors'] as const).every(
      (kind) => parts[kind] === c.parts[kind],
    );
    return { parts, ...(sameSeries ? {} : { ways: refit(c.ways, parts) }) };
  });
}

export function fitAgain(): void {
  edit((c) => ({ ways: refit(c.ways, c.parts) }));
}

export function addReading(reading: Omit<Reading, 'id'>): void {
  edit((c) => ({ readings: [...c.readings, { ...reading, id: newId('r') }] }));
}

export function changeReading(id: string, change: Partial<Omit<Reading, 'id'>>): void {
  edit((c) => ({ readings: c.readings.map((r) => (r.id === id ? { ...r, ...change } : r)) }));
}

export function removeReading(id: string): void {
  edit((c) => ({ readings: c.readings.filter((r) => r.id !== id) }));
}

/** A named snapshot to compare against and go back to. */
export function keepNow(name: string): void {
  edit((c) => {
    const keep: Keep = {
      id: newId('k'),
      name: cut(name.trim(), SHEET_LIMITS.name) || `Keep ${c.keeps.length + 1}`,
      at: now(),
      shown: true,
      design: designOf(c),
    };
    return { keeps: [...c.keeps, keep] };
  });
}

export function showKeep(id: string, shown: boolean): void {
  edit((c) => ({ keeps: c.keeps.map((k) => (k.id === id ? { ...k, shown } : k)) }));
}

export function removeKeep(id: string): void {
  edit((c) => ({ keeps: c.keeps.filter((k) => k.id !== id) }));
}

/** Put the sheet back to what a keep holds. Undo brings the present back. */
export function goBackTo(id: string): void {
  edit((c) => {
    const keep = c.keeps.find((k) => k.id === id);
    return keep ? { ...designOf(keep.design), bank: keep.design.bank } : {};
  });
}
