import { ReedError } from '@/core/errors';
import { nearestPreferred } from '@/core/quantity/series';
import { lowPassPrototype, type PoleSection } from '@/core/response/prototypes';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import type { StageAsk, StageChoice, Topology, Values } from '@/core/topologies/topology';
import type { Ask } from './ask';

export interface DesignedStage {
  topology: Topology;
  ask: StageAsk;
  choice: StageChoice;
  values: Values;
}

export interface Design {
  stages: DesignedStage[];
  /** What the person should know about it, in sentences. */
  notes: string[];
}

/**
 * From a wanted response to stages with exact values: prototype, frequency transformation, one
 * stage for each pole pair (and one for a single pole), lowest Q first so that inner nodes peak
 * least, gain shared evenly among the stages that can have any.
 *
 * @throws ReedError `design` saying which wish cannot be met and what would make it possible
 */
export function designAsk(ask: Ask): Design {
  const prototype = lowPassPrototype(ask);
  const sections = [...prototype.sections].sort((a, b) => (a.q ?? 0) - (b.q ?? 0));
  const topologies = sections.map((section) => topologyFor(ask, section));
  const notes: string[] = [];
  const gains = shareGain(ask, topologies, prototype.dcGain, notes);
  const stages = sections.map((section, i): DesignedStage => {
    const f0Hz = ask.kind === 'low-pass' ? ask.edgeHz * section.w0 : ask.edgeHz / section.w0;
    const stageAsk: StageAsk = {
      f0Hz,
      ...(section.q === undefined ? {} : { q: section.q }),
      gain: gains[i],
    };
    const choice = choiceFor(ask, f0Hz);
    return {
      topology: topologies[i],
      ask: stageAsk,
      choice,
      values: topologies[i].design(stageAsk, choice),
    };
  });
  const inverted = stages.filter((s) => s.topology.gain === 'inverting').length % 2 === 1;
  if (inverted) notes.push('The output is turned over in polarity.');
  return { stages, notes };
}

function topologyFor(ask: Ask, section: PoleSection): Topology {
  const order = section.q === undefined ? 1 : 2;
  if (ask.order === 1 || order === 2) {
    const topology = topologyOf(ask.topology ?? defaultTopology(ask.kind, order));
    if (topology.kind !== ask.kind) {
      throw new ReedError(
        'design',
        `“${topology.id}” is a ${topology.kind} and a ${ask.kind} was asked for. Use one of ${idsOf(ask.kind, order)}.`,
      );
    }
    if (topology.order !== order) {
      const why =
        order === 1
          ? 'order 1 has a single pole'
          : `order ${ask.order} is built of second-order stages`;
      throw new ReedError(
        'design',
        `“${topology.id}” is of order ${topology.order}, and ${why}. Use one of ${idsOf(ask.kind, order)}.`,
      );
    }
    return topology;
  }
  return topologyOf(`buffered-rc-${ask.kind}`);
}

function defaultTopology(kind: Ask['kind'], order: 1 | 2): string {
  return order === 1 ? `rc-${kind}` : `unity-${kind}`;
}

function idsOf(kind: Ask['kind'], order: number): string {
  return TOPOLOGIES.filter((t) => t.kind === kind && t.order === order)
    .map((t) => t.id)
    .join(', ');
}

/** The gain asked of each stage; undefined leaves it to the topology. */
function shareGain(
  ask: Ask,
  topologies: Topology[],
  dcGain: number,
  notes: string[],
): (number | undefined)[] {
  const able = topologies.filter((t) => t.gain !== 'unity').length;
  const crestDb = -20 * Math.log10(dcGain);
  if (able === 0) {
    if (ask.gainDb !== undefined && Math.abs(ask.gainDb) > 1e-9) {
      throw new ReedError(
        'design',
        `${topologies[0].name}: its gain is fixed at 0 dB and ${ask.gainDb} dB was asked. Ask for 0 dB, or take stages with settable gain.`,
      );
    }
    if (crestDb > 1e-9)
      notes.push(
        `At d.c. the gain is 0 dB, so the ripple’s crests stand ${crestDb.toFixed(2)} dB above it.`,
      );
    return topologies.map(() => 1);
  }
  if (ask.gainDb === undefined)
    return topologies.map((t) =>
      t.gain === 'settable' ? undefined : t.gain === 'inverting' ? -1 : 1,
    );
  const each = (10 ** (ask.gainDb / 20) * dcGain) ** (1 / able);
  const poor = topologies.find((t) => t.gain === 'settable' && each < t.limits.gain[0]);
  if (poor) {
    throw new ReedError(
      'design',
      `${poor.name}: each stage needs a gain above 0.2 dB, and ${ask.gainDb} dB shared among ${able} leaves ${(20 * Math.log10(each)).toFixed(2)} dB. Leave the gain as it comes, ask for more, or take unity-gain stages.`,
    );
  }
  return topologies.map((t) => (t.gain === 'unity' ? 1 : t.gain === 'inverting' ? -each : each));
}

function choiceFor(ask: Ask, f0Hz: number): StageChoice {
  if (ask.capacitorFarads !== undefined) return { farads: ask.capacitorFarads };
  if (ask.impedanceOhms !== undefined)
    return { farads: nearestPreferred(1 / (2 * Math.PI * f0Hz * ask.impedanceOhms), 'E12') };
  return {};
}
