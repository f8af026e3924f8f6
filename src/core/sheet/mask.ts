import { bandOf, edgeOf, mainHz, type Ask, type Limits } from '@/core/design/ask';
import { DEFAULT_RIPPLE_DB } from '@/core/response/prototypes';
import type { Reading } from './schema';

/** A region of the level picture that a good curve keeps out of. */
export interface ForbiddenLevel {
  fromHz: number;
  toHz: number;
  /** Forbidden above, or below, this level in dB. */
  above?: number;
  below?: number;
}

const EDGE_DB = {
  'half-power': 10 * Math.log10(2),
  'half-voltage': 20 * Math.log10(2),
  ripple: 0,
  asymptote: Infinity,
  'unit-delay': Infinity,
};

/**
 * What is wanted, as regions: in the pass band nothing under the edge's level, in the stop band
 * nothing over what is asked, and nothing beyond what a reading bounds.
 */
export function forbiddenLevels(
  ask: Ask,
  readings: readonly Reading[],
  passLevelDb: number,
): ForbiddenLevel[] {
  const regions = ask.limits
    ? limitRegions(ask.limits, ask.kind, passLevelDb)
    : edgeRegions(ask, passLevelDb);
  for (const { measure, wanted } of readings) {
    if (measure.measure !== 'level' || wanted?.is !== 'at-most') continue;
    regions.push({ ...outward(ask, measure.atHz), above: wanted.value });
  }
  return regions;
}

/** From a frequency away from the pass band. */
function outward(ask: Ask, hz: number): { fromHz: number; toHz: number } {
  const upwards = ask.kind === 'low-pass' || (ask.kind !== 'high-pass' && hz > mainHz(ask));
  return upwards ? { fromHz: hz, toHz: Infinity } : { fromHz: 0, toHz: hz };
}

function edgeRegions(ask: Ask, passLevelDb: number): ForbiddenLevel[] {
  const edge = edgeOf(ask);
  const down = edge === 'ripple' ? (ask.rippleDb ?? DEFAULT_RIPPLE_DB) : EDGE_DB[edge];
  if (!Number.isFinite(down)) return [];
  const below = passLevelDb - down;
  switch (ask.kind) {
    case 'low-pass':
      return [{ fromHz: 0, toHz: ask.edgeHz!, below }];
    case 'high-pass':
      return [{ fromHz: ask.edgeHz!, toHz: Infinity, below }];
    case 'band-pass':
    case 'wide-band': {
      const { lowerHz, upperHz } = bandOf(ask);
      return [{ fromHz: lowerHz, toHz: upperHz, below }];
    }
    case 'band-stop': {
      const { lowerHz, upperHz } = bandOf(ask);
      return [
        { fromHz: 0, toHz: lowerHz, below },
        { fromHz: upperHz, toHz: Infinity, below },
      ];
    }
    default:
      return [];
  }
}

function limitRegions(limits: Limits, kind: Ask['kind'], passLevelDb: number): ForbiddenLevel[] {
  const below = passLevelDb - limits.passDb;
  const above = passLevelDb - limits.stopDb;
  if ('passHz' in limits) {
    const { passHz, stopHz } = limits;
    return kind === 'low-pass'
      ? [
          { fromHz: 0, toHz: passHz, below },
          { fromHz: stopHz, toHz: Infinity, above },
        ]
      : [
          { fromHz: passHz, toHz: Infinity, below },
          { fromHz: 0, toHz: stopHz, above },
        ];
  }
  const { passLowerHz, passUpperHz, stopLowerHz, stopUpperHz } = limits;
  return kind === 'band-pass'
    ? [
        { fromHz: passLowerHz, toHz: passUpperHz, below },
        { fromHz: 0, toHz: stopLowerHz, above },
        { fromHz: stopUpperHz, toHz: Infinity, above },
      ]
    : [
        { fromHz: 0, toHz: passLowerHz, below },
        { fromHz: passUpperHz, toHz: Infinity, below },
        { fromHz: stopLowerHz, toHz: stopUpperHz, above },
      ];
}

/** The frequency at which the pass band's level is taken. */
export function passHz(ask: Ask, span: { fromHz: number; toHz: number }): number {
  switch (ask.kind) {
    case 'high-pass':
      return span.toHz;
    case 'band-pass':
    case 'wide-band':
      return mainHz(ask);
    default:
      return span.fromHz;
  }
}
