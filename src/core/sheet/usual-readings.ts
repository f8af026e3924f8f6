import { bandOf, edgeOf, hasShape, mainHz, placedBy, type Ask } from '@/core/design/ask';
import { bandsOf } from '@/core/design/bands';
import { DEFAULT_RIPPLE_DB, ripplesInPassBand } from '@/core/response/prototypes';
import { HALF_POWER_DB, HALF_VOLTAGE_DB } from '@/core/response/decibels';
import type { Measure, Reference } from '@/core/response/readings';
import type { Reading, Wanted } from './schema';

/*
 * The readings that a filter of each kind is usually judged by. They are made anew with the ask as
 * long as nobody worked on the list.
 */

interface Draft {
  measure: Measure;
  wanted?: Wanted;
}

const round = (hz: number) => Number(hz.toPrecision(2));
const near = (value: number): Wanted => ({ is: 'near', value, tolerance: 0.03, relative: true });
const within = (db: number): Wanted => ({ is: 'near', value: db, tolerance: 0.5, relative: false });
const TOP: Reference = { from: 'peak' };
const level = (hz: number, wanted?: Wanted): Draft => ({
  measure: { measure: 'level', atHz: hz },
  ...(wanted ? { wanted } : {}),
});

export function usualReadings(ask: Ask): Reading[] {
  return drafts(ask).map((draft, i) => ({ id: `r${i + 1}`, ...draft }));
}

function drafts(ask: Ask): Draft[] {
  const hz = mainHz(ask);
  switch (ask.kind) {
    case 'low-pass':
    case 'high-pass':
      return passDrafts(ask, hz);
    case 'band-pass':
    case 'wide-band':
      return [
        ...bandEdges(ask),
        level(round(hz), gainOf(ask)),
        ...(ask.limits ? limitDrafts(ask) : beyond(ask)),
        { measure: { measure: 'peak-level' } },
      ];
    case 'band-stop':
    case 'notch':
      return [
        ...(ask.limits ? limitDrafts(ask) : stopEdges(ask)),
        level(hz),
        level(round(hz / 10), gainOf(ask)),
        level(round(hz * 10)),
      ];
    case 'peak':
      return [
        level(hz, within(ask.gainDb!)),
        level(round(hz / 10)),
        level(round(hz * 10)),
        { measure: { measure: 'peak-frequency' } },
      ];
    case 'all-pass':
      return [
        { measure: { measure: 'phase', atHz: round(hz) } },
        level(round(hz)),
        { measure: { measure: 'phase', atHz: round(hz * 10) } },
      ];
    default:
      return [
        level(round(hz / 20)),
        level(hz),
        level(round(hz * 20)),
        { measure: { measure: 'phase', atHz: round(hz) } },
      ];
  }
}

const gainOf = (ask: Ask): Wanted | undefined =>
  ask.gainDb === undefined ? undefined : within(ask.gainDb);

function passDrafts(ask: Ask, hz: number): Draft[] {
  const low = ask.kind === 'low-pass';
  const edge = edgeOf(ask);
  const slopeFrom = round(low ? hz * 4 : hz / 8);
  const placed = ask.edgeHz !== undefined && (edge === 'half-power' || edge === 'half-voltage');
  // Of a shape that ripples the edge is counted from the crests.
  const reference: Reference = ripplesInPassBand(ask.shape) ? TOP : { from: 'plateau' };
  return [
    {
      measure: {
        measure: 'edge',
        downDb: edge === 'half-voltage' ? HALF_VOLTAGE_DB : HALF_POWER_DB,
        side: low ? 'upper' : 'lower',
        reference,
      },
      ...(placed ? { wanted: near(ask.edgeHz!) } : {}),
    },
    ...rippleDraft(ask),
    level(round(low ? hz / 4 : hz * 4), gainOf(ask)),
    ...(ask.limits ? limitDrafts(ask) : [level(round(low ? hz * 4 : hz / 4))]),
    { measure: { measure: 'peak-level' } },
    { measure: { measure: 'slope', fromHz: slopeFrom, toHz: slopeFrom * 2 } },
    { measure: { measure: 'phase', atHz: round(hz) } },
  ];
}

/** An edge that ends the ripple: the level there, under the crests. */
function rippleDraft(ask: Ask): Draft[] {
  if (ask.limits || edgeOf(ask) !== 'ripple' || !ripplesInPassBand(ask.shape)) return [];
  const down = -(ask.rippleDb ?? DEFAULT_RIPPLE_DB);
  return [
    {
      measure: { measure: 'level', atHz: ask.edgeHz!, reference: TOP },
      wanted: within(down),
    },
  ];
}

/** How far beyond its limit an open stop or pass band is watched. */
const FAR = 100;

/** What limits ask, each over its whole band and counted from the highest point. */
function limitDrafts(ask: Ask): Draft[] {
  const { passDb, stopDb } = ask.limits!;
  const { pass, stop } = bandsOf(ask);
  const closed = ({ fromHz, toHz }: { fromHz: number; toHz: number }) =>
    fromHz === 0
      ? { fromHz: toHz / FAR, toHz }
      : { fromHz, toHz: toHz === Infinity ? fromHz * FAR : toHz };
  const watch = (
    end: 'highest' | 'lowest',
    band: { fromHz: number; toHz: number },
    wanted: Wanted,
  ): Draft => ({ measure: { measure: 'range', end, ...closed(band), reference: TOP }, wanted });
  return [
    ...pass.map((band) => watch('lowest', band, { is: 'at-least', value: -passDb })),
    ...stop.map((band) => watch('highest', band, { is: 'at-most', value: -stopDb })),
  ];
}

function bandEdges(ask: Ask): Draft[] {
  const placed =
    !ask.limits &&
    edgeOf(ask) === 'half-power' &&
    (placedBy(ask.kind) === 'band' || ask.kind === 'notch');
  const band = ask.limits ? undefined : bandOf(ask);
  return (['lower', 'upper'] as const).map((side) => ({
    measure: { measure: 'edge', downDb: HALF_POWER_DB, side, reference: TOP },
    ...(placed && band ? { wanted: near(side === 'lower' ? band.lowerHz : band.upperHz) } : {}),
  }));
}

/** The two points at which a notch or band-stop is half the power down. */
function stopEdges(ask: Ask): Draft[] {
  if (hasShape(ask.kind) && edgeOf(ask) !== 'half-power') return [];
  const { lowerHz, upperHz } = bandOf(ask);
  const down = (ask.gainDb ?? 0) - HALF_POWER_DB;
  return [lowerHz, upperHz].map((hz) =>
    level(Number(hz.toPrecision(6)), within(Number(down.toFixed(2)))),
  );
}

function beyond(ask: Ask): Draft[] {
  const { lowerHz, upperHz } = bandOf(ask);
  return [level(round(lowerHz / 2)), level(round(upperHz * 2))];
}
