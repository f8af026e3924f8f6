import { edgeOf, hasShape, mainHz, type Ask, type Limits } from '@/core/design/ask';
import { bandsOf } from '@/core/design/bands';
import { DEFAULT_RIPPLE_DB } from '@/core/response/prototypes';
import { HALF_POWER_DB, HALF_VOLTAGE_DB } from '@/core/response/decibels';
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
  'half-power': HALF_POWER_DB,
  'half-voltage': HALF_VOLTAGE_DB,
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
    ? limitRegions(ask, ask.limits, passLevelDb)
    : edgeRegions(ask, passLevelDb);
  for (const { measure, wanted } of readings) {
    if (measure.measure !== 'level' || measure.reference || wanted?.is !== 'at-most') continue;
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
  if (!hasShape(ask.kind) || ask.kind === 'all-pass') return [];
  const edge = edgeOf(ask);
  const down = edge === 'ripple' ? (ask.rippleDb ?? DEFAULT_RIPPLE_DB) : EDGE_DB[edge];
  if (!Number.isFinite(down)) return [];
  return bandsOf(ask).pass.map((band) => ({ ...band, below: passLevelDb - down }));
}

function limitRegions(ask: Ask, { passDb, stopDb }: Limits, passLevelDb: number): ForbiddenLevel[] {
  const { pass, stop } = bandsOf(ask);
  return [
    ...pass.map((band) => ({ ...band, below: passLevelDb - passDb })),
    ...stop.map((band) => ({ ...band, above: passLevelDb - stopDb })),
  ];
}

/** The top of the pass band on a curve, from which what is wanted is counted; null outside the picture. */
export function passLevelDb(
  ask: Ask,
  { frequenciesHz, levelDb }: { frequenciesHz: Float64Array; levelDb: Float64Array },
): number | null {
  const { pass } = bandsOf(ask);
  const inside = levelDb.filter((_, k) =>
    pass.some((b) => frequenciesHz[k] >= b.fromHz && frequenciesHz[k] <= b.toHz),
  );
  return inside.length === 0 ? null : inside.reduce((a, b) => Math.max(a, b));
}
