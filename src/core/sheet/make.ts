import type { Ask } from '@/core/design/ask';
import { designAsk, type DesignedStage } from '@/core/design/design';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { nearestPreferred } from '@/core/quantity/series';
import { topologyOf } from '@/core/topologies';
import { valuedParts } from '@/core/topologies/instantiate';
import type { StageAsk, Topology, Values } from '@/core/topologies/topology';
import type { PartChoices, Reading, Sheet, Stage, Way } from './schema';

export const DEFAULT_PARTS: PartChoices = {
  opAmp: { ...OP_AMPS[0] },
  resistors: 'E24',
  capacitors: 'E12',
};

/** The nearest values that can be bought, by the sheet's series. */
export function realValues(
  topology: Topology,
  exact: Values,
  parts: PartChoices,
): Record<string, number> {
  return Object.fromEntries(
    valuedParts(topology).map(({ id, kind }) => {
      const series = kind === 'capacitor' ? parts.capacitors : parts.resistors;
      return [id, series === 'exact' ? exact[id] : nearestPreferred(exact[id], series)];
    }),
  );
}

/** The values a stage would have if any value could be bought. */
export function exactValues(stage: Pick<Stage, 'topology' | 'target' | 'farads'>): Values {
  return topologyOf(stage.topology).design(stage.target, { farads: stage.farads });
}

/** A stage of any topology for given figures, fitted to real values. */
export function makeStage(
  id: string,
  topology: Topology,
  target: StageAsk,
  parts: PartChoices,
  origin: Stage['origin'],
  farads?: number,
): Stage {
  const exact = topology.design(target, { farads });
  return {
    id,
    topology: topology.id,
    origin,
    bypassed: false,
    target,
    ...(farads === undefined ? {} : { farads }),
    values: realValues(topology, exact, parts),
  };
}

/** Every stage's values fitted to the sheet's series again. */
export function refit(ways: Way[], parts: PartChoices): Way[] {
  return ways.map((way) => ({
    ...way,
    stages: way.stages.map((stage) => ({
      ...stage,
      values: realValues(topologyOf(stage.topology), exactValues(stage), parts),
    })),
  }));
}

/**
 * A path redesigned for a changed ask. Stages put there by hand stay where they are; stages that
 * come from the ask keep their ids where they can, so that a selection survives.
 */
export function redesign(way: Way, ask: Ask, parts: PartChoices): Way {
  const designed = designAsk(ask).stages;
  const taken = new Set(way.stages.filter((s) => s.origin === 'hand').map((s) => s.id));
  const reuse = way.stages.filter((s) => s.origin === 'ask').map((s) => s.id);
  let next = 1;
  const idFor = (i: number): string => {
    if (i < reuse.length) return reuse[i];
    while (taken.has(`s${next}`) || reuse.includes(`s${next}`)) next++;
    return `s${next++}`;
  };
  const made = designed.map((d, i) => stageOf(idFor(i), d, parts));
  const first = way.stages.findIndex((s) => s.origin === 'ask');
  const before = (first < 0 ? way.stages : way.stages.slice(0, first)).filter(
    (s) => s.origin === 'hand',
  );
  const after = first < 0 ? [] : way.stages.slice(first).filter((s) => s.origin === 'hand');
  return { ...way, stages: [...before, ...made, ...after] };
}

function stageOf(id: string, { topology, ask, choice }: DesignedStage, parts: PartChoices): Stage {
  return makeStage(id, topology, ask, parts, 'ask', choice.farads);
}

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
  source?: Partial<Way['source']>;
  load?: Partial<Way['load']>;
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
    source: { name: 'Source', ohms: 0, volts: 1, ...source },
    stages: [],
    load: { name: 'Load', ohms: 100_000, farads: null, ...load },
  };
  return {
    format: 'jaunty-reed/sheet',
    version: 1,
    id,
    title,
    createdAt: at,
    updatedAt: at,
    revision: 0,
    ...(demo === undefined ? {} : { demo }),
    ask,
    parts,
    ways: [redesign(way, ask, parts)],
    readings: readings ?? usualReadings(ask),
    keeps: [],
    controls: [],
    boards: [],
    view: { lens: 'level', ...viewFor(ask.edgeHz) },
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

/** The readings a low-pass or high-pass is usually judged by. */
export function usualReadings(ask: Ask): Reading[] {
  const low = ask.kind === 'low-pass';
  const downDb = ask.edge === 'half-voltage' ? 6 : 3;
  const passHz = round(low ? ask.edgeHz / 4 : ask.edgeHz * 4);
  const stopHz = round(low ? ask.edgeHz * 4 : ask.edgeHz / 4);
  const slopeFrom = low ? ask.edgeHz * 4 : ask.edgeHz / 8;
  const readings: Reading[] = [
    {
      id: 'r1',
      measure: {
        measure: 'edge',
        downDb,
        side: low ? 'upper' : 'lower',
        reference: { from: 'plateau' },
      },
      ...(ask.edge === 'half-power' || ask.edge === 'half-voltage'
        ? { wanted: { is: 'near', value: ask.edgeHz, tolerance: 0.03, relative: true } as const }
        : {}),
    },
    {
      id: 'r2',
      measure: { measure: 'level', atHz: passHz },
      ...(ask.gainDb === undefined
        ? {}
        : { wanted: { is: 'near', value: ask.gainDb, tolerance: 0.5, relative: false } as const }),
    },
    { id: 'r3', measure: { measure: 'level', atHz: stopHz } },
    { id: 'r4', measure: { measure: 'peak-level' } },
    {
      id: 'r5',
      measure: { measure: 'slope', fromHz: round(slopeFrom), toHz: round(slopeFrom) * 2 },
    },
    { id: 'r6', measure: { measure: 'phase', atHz: round(ask.edgeHz) } },
  ];
  return readings;
}

/**
 * Readings after the ask changed. The usual ones are made anew; a list that was worked on keeps its
 * entries, with edges that were wanted at the old edge moved to the new one.
 */
export function readingsFollow(readings: Reading[], before: Ask, after: Ask): Reading[] {
  if (JSON.stringify(readings) === JSON.stringify(usualReadings(before)))
    return usualReadings(after);
  return readings.map((reading) => {
    const { measure, wanted } = reading;
    if (measure.measure !== 'edge' || wanted?.is !== 'near' || wanted.value !== before.edgeHz)
      return reading;
    const side = after.kind === 'low-pass' ? 'upper' : 'lower';
    return {
      ...reading,
      measure: { ...measure, side: before.kind === after.kind ? measure.side : side },
      wanted: { ...wanted, value: after.edgeHz },
    };
  });
}

/** The picture's span after the ask changed: moved along when it was the usual one or would lose the edge. */
export function viewFollow(
  view: { fromHz: number; toHz: number },
  before: Ask,
  after: Ask,
): { fromHz: number; toHz: number } {
  const usual = viewFor(before.edgeHz);
  const lost = after.edgeHz < view.fromHz * 2 || after.edgeHz > view.toHz / 2;
  return lost || (view.fromHz === usual.fromHz && view.toHz === usual.toHz)
    ? viewFor(after.edgeHz)
    : view;
}

const round = (hz: number) => Number(hz.toPrecision(2));
