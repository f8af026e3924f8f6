import { bandOf, mainHz, placedBy, type Ask } from '@/core/design/ask';
import { designAsk, type DesignedStage } from '@/core/design/design';
import { withRoom } from '@/core/design/room';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import type { StageAsk, StageChoice, Topology } from '@/core/topologies/topology';
import { checkStageFields } from './gate';
import { exactValues, startOf } from './exact';
import type { PartChoices, Reading, Sheet, Source, Stage, Way, WayEnd } from './schema';
import { SHEET_VERSION } from './schema';
import { designedAs, drawnParts, partsOf, withValues } from './stage';
import { realValues } from './real-values';
import { usualReadings } from './usual-readings';

export const DEFAULT_PARTS: PartChoices = {
  opAmp: { ...OP_AMPS[0] },
  resistors: 'E24',
  capacitors: 'E12',
  inductors: 'E12',
};

/** A stage of any topology for given figures, fitted to real values. */
export function makeStage(
  id: string,
  topology: Topology,
  target: StageAsk,
  parts: PartChoices,
  origin: Stage['origin'],
  start: StageChoice = {},
): Stage {
  const choice = startOf(start);
  checkStageFields({ target, ...choice });
  const exact = topology.design(target, choice);
  return {
    id,
    topology: topology.id,
    origin,
    bypassed: false,
    target,
    ...choice,
    parts: partsOf(realValues(topology, exact, parts)),
  };
}

/** A stage's values fitted to the series again; parts that were put in by hand stay. */
function refitted(stage: Stage, parts: PartChoices): Stage {
  const exact = exactValues(stage);
  const topology = designedAs(stage);
  if (!exact || !topology) return stage;
  const real = Object.entries(realValues(topology, exact, parts));
  const drawn = new Set(drawnParts(stage).map((p) => p.id));
  return withValues(stage, Object.fromEntries(real.filter(([id]) => drawn.has(id))));
}

/** Every stage's values fitted to the sheet's series again. */
export function refit(ways: Way[], parts: PartChoices): Way[] {
  return ways.map((way) => ({
    ...way,
    stages: way.stages.map((stage) => refitted(stage, parts)),
  }));
}

/**
 * A path redesigned for a changed ask. Stages put there by hand stay where they are; stages that
 * come from the ask keep their ids where they can, so that a selection survives.
 */
export function redesign(way: Way, ask: Ask, parts: PartChoices): Way {
  const designed = designAsk(withRoom(ask)).stages;
  const taken = new Set(way.stages.filter((s) => s.origin === 'hand').map((s) => s.id));
  const reuse = way.stages.filter((s) => s.origin === 'ask').map((s) => s.id);
  let next = 1;
  const idFor = (i: number): string => {
    if (i < reuse.length) return reuse[i];
    while (taken.has(`s${next}`) || reuse.includes(`s${next}`)) next++;
    return `s${next++}`;
  };
  const made = designed.map((d, i) => {
    const stage = stageOf(idFor(i), d, parts);
    const before = way.stages.find((s) => s.id === stage.id);
    // A stage that was made of a higher impedance for the sake of its neighbours stays so.
    return before?.impedance !== undefined && before.topology === stage.topology
      ? refitted({ ...stage, impedance: before.impedance }, parts)
      : stage;
  });
  const first = way.stages.findIndex((s) => s.origin === 'ask');
  const before = (first < 0 ? way.stages : way.stages.slice(0, first)).filter(
    (s) => s.origin === 'hand',
  );
  const after = first < 0 ? [] : way.stages.slice(first).filter((s) => s.origin === 'hand');
  return { ...way, stages: [...before, ...made, ...after] };
}

function stageOf(id: string, { topology, ask, choice }: DesignedStage, parts: PartChoices): Stage {
  return makeStage(id, topology, ask, parts, 'ask', choice);
}

/** Whether a sheet is designed by its ask; one of stages put in by hand alone is not. */
export const followsAsk = ({ ways }: Pick<Sheet, 'ways'>): boolean =>
  ways[0].stages.length === 0 || ways[0].stages.some((s) => s.origin === 'ask');

/** A stage id not used in the path yet. */
export function freshStageId(way: Way): string {
  let n = way.stages.length + 1;
  while (way.stages.some((s) => s.id === `s${n}`)) n++;
  return `s${n}`;
}

export interface NewSheet {
  id: string;
  title: string;
  ask: Ask;
  /** Time of creation, ISO. */
  at: string;
  source?: Partial<Source>;
  load?: Partial<Omit<WayEnd & { is: 'load' }, 'is'>>;
  parts?: PartChoices;
  readings?: Reading[];
  demo?: string;
}

/**
 * A new sheet, designed for its ask and with the readings such a filter is judged by.
 *
 * @throws ReedError `design` when the ask cannot be met
 */
export function makeSheet({
  id,
  title,
  ask,
  at,
  source,
  load,
  parts = DEFAULT_PARTS,
  readings,
  demo,
}: NewSheet): Sheet {
  const way: Way = {
    id: 'w1',
    name: 'Main path',
    from: { is: 'source' },
    stages: [],
    to: { is: 'load', name: 'Load', ohms: 100_000, farads: null, ...load },
  };
  return {
    format: 'jaunty-reed/sheet',
    version: SHEET_VERSION,
    id,
    title,
    createdAt: at,
    updatedAt: at,
    revision: 0,
    ...(demo === undefined ? {} : { demo }),
    ask,
    parts,
    source: { name: 'Source', ohms: 0, volts: 1, ...source },
    ways: [redesign(way, ask, parts)],
    readings: readings ?? usualReadings(ask),
    keeps: [],
    controls: [],
    boards: [],
    view: { lens: 'level', ...viewFor(mainHz(ask)) },
  };
}

/** A round span of the frequency axis about an edge: two decades or so either side. */
export function viewFor(edgeHz: number): { fromHz: number; toHz: number } {
  const decade = Math.floor(Math.log10(edgeHz));
  const leading = edgeHz / 10 ** decade;
  return {
    fromHz: Number(`${leading < 3 ? 2 : 5}e${decade - 2}`),
    toHz: Number(`${leading < 3 ? 2 : 5}e${decade + 2}`),
  };
}

/**
 * Readings after the ask changed. The usual ones are made anew; a list that was worked on keeps its
 * entries, with edges that were wanted at the old edge moved to the new one.
 */
export function readingsFollow(readings: Reading[], before: Ask, after: Ask): Reading[] {
  if (JSON.stringify(readings) === JSON.stringify(usualReadings(before)))
    return usualReadings(after);
  const moved = edgesMoved(before, after);
  return readings.map((reading) => {
    const { measure, wanted } = reading;
    if (measure.measure !== 'edge' || wanted?.is !== 'near') return reading;
    const to = moved.find(([from]) => from === wanted.value)?.[1];
    if (to === undefined) return reading;
    const side = after.kind === 'low-pass' ? 'upper' : 'lower';
    const flipped = before.kind !== after.kind && placedBy(after.kind) === 'edge';
    return {
      ...reading,
      measure: { ...measure, side: flipped ? side : measure.side },
      wanted: { ...wanted, value: to },
    };
  });
}

/** Edges of an ask that a wanted reading may name, each with where it went. */
function edgesMoved(before: Ask, after: Ask): [number, number][] {
  if (before.edgeHz !== undefined && after.edgeHz !== undefined)
    return [[before.edgeHz, after.edgeHz]];
  if (
    before.limits ||
    after.limits ||
    placedBy(before.kind) === 'edge' ||
    placedBy(after.kind) === 'edge'
  )
    return [];
  const [from, to] = [bandOf(before), bandOf(after)];
  return [
    [from.lowerHz, to.lowerHz],
    [from.upperHz, to.upperHz],
  ];
}

/** The picture's span after the ask changed: moved along when it was the usual one or would lose the edge. */
export function viewFollow(
  view: { fromHz: number; toHz: number },
  before: Ask,
  after: Ask,
): { fromHz: number; toHz: number } {
  const usual = viewFor(mainHz(before));
  const lost = mainHz(after) < view.fromHz * 2 || mainHz(after) > view.toHz / 2;
  return lost || (view.fromHz === usual.fromHz && view.toHz === usual.toHz)
    ? viewFor(mainHz(after))
    : view;
}
