import { bandOf, edgeOf, mainHz, placedBy, type Ask } from '@/core/design/ask';
import type { Measure } from '@/core/response/readings';
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
        ...bandEdges(ask, { from: 'peak' }),
        level(round(hz), gainOf(ask)),
        ...beyond(ask),
        { measure: { measure: 'peak-level' } },
      ];
    case 'band-stop':
    case 'notch':
      return [
        ...stopEdges(ask),
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
  return [
    {
      measure: {
        measure: 'edge',
        downDb: edge === 'half-voltage' ? 6 : 3,
        side: low ? 'upper' : 'lower',
        reference: { from: 'plateau' },
      },
      ...(placed ? { wanted: near(ask.edgeHz!) } : {}),
    },
    level(round(low ? hz / 4 : hz * 4), gainOf(ask)),
    ...stopDraft(ask, round(low ? hz * 4 : hz / 4)),
    { measure: { measure: 'peak-level' } },
    { measure: { measure: 'slope', fromHz: slopeFrom, toHz: slopeFrom * 2 } },
    { measure: { measure: 'phase', atHz: round(hz) } },
  ];
}

/** The level in the stop band: at the asked limit, or two octaves out. */
function stopDraft({ limits }: Ask, otherwiseHz: number): Draft[] {
  if (!limits || !('stopHz' in limits)) return [level(otherwiseHz)];
  return [level(limits.stopHz, { is: 'at-most', value: -limits.stopDb })];
}

type Reference = Extract<Measure, { measure: 'edge' }>['reference'];

function bandEdges(ask: Ask, reference: Reference): Draft[] {
  const placed =
    !ask.limits &&
    edgeOf(ask) === 'half-power' &&
    (placedBy(ask.kind) === 'band' || ask.kind === 'notch');
  const band = ask.limits ? undefined : bandOf(ask);
  return (['lower', 'upper'] as const).map((side) => ({
    measure: { measure: 'edge', downDb: 3, side, reference },
    ...(placed && band ? { wanted: near(side === 'lower' ? band.lowerHz : band.upperHz) } : {}),
  }));
}

/** The two points at which a notch or band-stop is half the power down. */
function stopEdges(ask: Ask): Draft[] {
  if (ask.limits || edgeOf(ask) !== 'half-power') return [];
  const { lowerHz, upperHz } = bandOf(ask);
  const down = (ask.gainDb ?? 0) - 10 * Math.log10(2);
  return [lowerHz, upperHz].map((hz) =>
    level(Number(hz.toPrecision(6)), within(Number(down.toFixed(2)))),
  );
}

function beyond(ask: Ask): Draft[] {
  if (ask.limits && 'stopLowerHz' in ask.limits) {
    const { stopLowerHz, stopUpperHz, stopDb } = ask.limits;
    const most: Wanted = { is: 'at-most', value: -stopDb };
    return [level(stopLowerHz, most), level(stopUpperHz, most)];
  }
  const { lowerHz, upperHz } = bandOf(ask);
  return [level(round(lowerHz / 2)), level(round(upperHz * 2))];
}
