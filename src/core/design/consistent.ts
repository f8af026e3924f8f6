import {
  DEFAULT_RIPPLE_DB,
  DEFAULT_STOPBAND_DB,
  hasEdge,
  ripplesInPassBand,
  returnsInStopBand,
} from '@/core/response/prototypes';
import { TOPOLOGIES } from '@/core/topologies';
import { siblingAmong } from '@/core/topologies/siblings';
import type { Topology } from '@/core/topologies/topology';
import {
  bandOf,
  centreOf,
  hasOrder,
  hasShape,
  liftsByGain,
  mainHz,
  placedBy,
  type Ask,
} from './ask';
import { shapedTopologies, wholeTopologies } from './choose';
import { sectionsOf } from './sections';

/*
 * One word of an ask changed: the others are brought along, so that no single change leaves an ask
 * that means nothing.
 */

/** The ask after one change, with what no longer fits let go or brought over. */
export function consistent(before: Ask, change: Partial<Ask>): Ask {
  const after = { ...before, ...change };
  const kindChanged = change.kind !== undefined && change.kind !== before.kind;
  const ask = kindChanged ? moved(before, after) : after;
  if (ask.limits && (change.order !== undefined || changesPlace(change))) delete ask.limits;
  if (ask.shape === 'linkwitz-riley' && ask.order !== undefined)
    ask.order = Math.min(8, Math.max(2, ask.order + (ask.order % 2)));
  // With limits, ripple and stop band are what the limits allow.
  const needs = (has: boolean, value: number | undefined, usual: number) =>
    ask.limits || !has ? undefined : (value ?? usual);
  ask.rippleDb = needs(ripplesInPassBand(ask.shape), ask.rippleDb, DEFAULT_RIPPLE_DB);
  ask.stopbandDb = needs(returnsInStopBand(ask.shape), ask.stopbandDb, DEFAULT_STOPBAND_DB);
  if (ask.edge && !hasEdge(ask.shape, ask.edge)) ask.edge = undefined;
  ask.topology = fittingTopology(ask);
  return tidy(ask);
}

const changesPlace = (c: Partial<Ask>) =>
  [c.edgeHz, c.lowerHz, c.upperHz, c.centreHz, c.q].some((x) => x !== undefined);

/** Places an ask of another kind where the old one was. */
function moved(before: Ask, after: Ask): Ask {
  const hz = mainHz(before);
  const from = placedBy(before.kind);
  const ask: Ask = {
    ...after,
    limits: undefined,
    edgeHz: undefined,
    lowerHz: undefined,
    upperHz: undefined,
    centreHz: undefined,
    q: undefined,
  };
  const had =
    from === 'edge' || before.limits ? undefined : { ...bandOf(before), ...centreOf(before) };
  switch (placedBy(after.kind)) {
    case 'edge':
      ask.edgeHz = hz;
      break;
    case 'band':
      ask.lowerHz = had?.lowerHz ?? hz / 2;
      ask.upperHz = had?.upperHz ?? hz * 2;
      break;
    case 'centre':
      ask.centreHz = had?.centreHz ?? hz;
      ask.q = had?.q ?? 2;
  }
  if (liftsByGain(ask.kind) !== liftsByGain(before.kind))
    ask.gainDb = liftsByGain(ask.kind) ? 6 : undefined;
  if (!hasOrder(ask.kind)) ask.order = undefined;
  else ask.order ??= hasShape(ask.kind) ? 2 : 1;
  return ask;
}

/** The asked topology, its sibling for the kind or order of now, or none. */
function fittingTopology(ask: Ask): string | undefined {
  if (ask.topology === undefined) return undefined;
  const able = topologiesFor(ask);
  const named = ask.topology;
  if (able.some((t) => t.id === named)) return named;
  const known = TOPOLOGIES.find((t) => t.id === named);
  return known && siblingAmong(known, able)?.id;
}

/** Topologies that an ask can be built as: whole, or stage by stage for its highest section. */
export function topologiesFor(ask: Ask): Topology[] {
  const { sections, order } = sectionsOf({ ...ask, topology: undefined });
  const main = [...sections].sort((a, b) => (b.figures.q ?? 0) - (a.figures.q ?? 0))[0];
  const zeros =
    sections.some((s) => s.kind === 'notch') &&
    (ask.kind === 'low-pass' || ask.kind === 'high-pass');
  const whole = wholeTopologies(ask.kind, order).filter(
    (t) => t.ownShape || (t.limits.poles === 'with-zeros') === zeros,
  );
  const stages = shapedTopologies(ask, main).filter(
    (t) =>
      main.figures.zeroHz === undefined ||
      Math.abs(main.figures.zeroHz / main.figures.f0Hz - 1) < 1e-9 ||
      t.limits.zero !== undefined,
  );
  return [...stages, ...whole];
}

/** Absent wishes are left out, so that equal asks are equal as text. */
function tidy(ask: Ask): Ask {
  return Object.fromEntries(Object.entries(ask).filter(([, v]) => v !== undefined)) as Ask;
}
