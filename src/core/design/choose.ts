import { ReedError } from '@/core/errors';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { siblingAmong } from '@/core/topologies/siblings';
import type { Topology } from '@/core/topologies/topology';
import { hasShape, type Ask } from './ask';
import type { Section, Sections } from './sections';

/** Topologies that make a whole low-pass or high-pass of this order in one piece. */
export function wholeTopologies(kind: string, order: number): Topology[] {
  return TOPOLOGIES.filter(
    (t) => t.kind === kind && t.order === order && (t.limits.poles !== undefined || t.ownShape),
  );
}

/** Second-order circuits whose Q follows from their own form: it cannot be asked of them. */
export const hasOwnQ = ({ kind, limits }: Topology): boolean =>
  kind === 'notch' && limits.q === undefined && limits.poles === undefined;

/** Topologies for the sections of a shape, which need the Q that they ask for. */
export const shapedTopologies = (ask: Ask, section: Section): Topology[] =>
  sectionTopologies(section).filter((t) => !hasShape(ask.kind) || !hasOwnQ(t));

/** Topologies for one section. */
export function sectionTopologies(section: Section): Topology[] {
  const order = section.figures.q === undefined ? 1 : 2;
  return TOPOLOGIES.filter(
    (t) =>
      t.kind === section.kind &&
      t.order === order &&
      !t.limits.poles &&
      !t.ownShape &&
      !t.onlyByName &&
      takesBoost(t, section),
  );
}

/** Lifting and cutting circuits are told apart by the range of their height. */
function takesBoost({ limits }: Topology, { figures }: Section): boolean {
  if (figures.boost === undefined || !limits.boost) return true;
  return figures.boost > 1 === limits.boost[1] > 1;
}

/**
 * The one topology that is asked for and makes the whole response, if the ask names such a one:
 * by its id, or by its id without the order.
 */
export function wholeTopology(ask: Ask, { whole, order }: Sections): Topology | undefined {
  if (ask.topology === undefined || !whole) return undefined;
  const named = ask.topology;
  const found = TOPOLOGIES.find(
    (t) =>
      (t.id === named || (t.series === named && t.order === order)) &&
      (t.limits.poles !== undefined || t.ownShape === true),
  );
  if (!found) {
    const family = TOPOLOGIES.filter((t) => t.series === named);
    if (family.length > 0)
      throw new ReedError(
        'design',
        `“${named}” comes in the orders ${family.map((t) => t.order).join(', ')}, and order ${order} was asked.`,
      );
    return undefined;
  }
  if (found.kind !== ask.kind || found.order !== order)
    throw new ReedError(
      'design',
      `“${found.id}” is a ${found.kind} of order ${found.order}, and a ${ask.kind} of order ${order} was asked. ${offer(wholeTopologies(ask.kind, order))}`,
    );
  return found;
}

/** The topology of one section: the asked one, its sibling for this kind, or the usual one. */
export function topologyFor(ask: Ask, section: Section, sections: Sections): Topology {
  const able = sectionTopologies(section);
  const named = ask.topology;
  if (named !== undefined) {
    const exact = able.find((t) => t.id === named);
    if (exact) return exact;
    const asked = topologyOf(named);
    const fitsAnother = sections.sections.some((s) => sectionTopologies(s).includes(asked));
    const sibling = siblingAmong(asked, able);
    if (sibling && (fitsAnother || asked.kind === ask.kind)) return sibling;
    if (!fitsAnother)
      throw new ReedError(
        'design',
        `“${named}” is a ${asked.kind}${asked.order > 0 ? ` of order ${asked.order}` : ''}, and this ${ask.kind} is built of ${describe(sections.sections)}. ${offer(able)}`,
      );
  }
  return usual(ask, section, sections, able);
}

/** Of the circuits that can make a section the one that suits it best; of equals the first. */
export function usual(
  ask: Ask,
  { kind, figures }: Section,
  { sections }: Sections,
  able: readonly Topology[],
): Topology {
  const section = {
    q: figures.q,
    gainDb: ask.gainDb ?? 0,
    sections: sections.length,
    alone: sections.length === 1,
  };
  const suits = (t: Topology) => t.suits?.(section) ?? 0;
  if (able.length === 0)
    throw new ReedError('design', `There is no circuit for a ${kind} with these figures.`);
  return able.reduce((best, t) => (suits(t) > suits(best) ? t : best));
}

function describe(sections: readonly Section[]): string {
  const kinds = new Set(
    sections.map((s) => `${s.figures.q === undefined ? 'first' : 'second'}-order ${s.kind} stages`),
  );
  return [...kinds].join(' and ');
}

const offer = (list: readonly Topology[]): string =>
  list.length > 0
    ? `Use one of ${list.map((t) => t.id).join(', ')}.`
    : 'No circuit makes it in one piece.';
