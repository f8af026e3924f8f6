import type { Ask } from '@/core/design/ask';
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
 * What is wanted, as regions: under the pass band's edge level on its side of the edge, and beyond
 * every level that a reading bounds in the stop band.
 */
export function forbiddenLevels(
  ask: Ask,
  readings: readonly Reading[],
  passLevelDb: number,
): ForbiddenLevel[] {
  const low = ask.kind === 'low-pass';
  const down = ask.edge === 'ripple' ? (ask.rippleDb ?? 0.5) : EDGE_DB[ask.edge];
  const regions: ForbiddenLevel[] = [];
  if (Number.isFinite(down)) {
    regions.push({
      ...(low ? { fromHz: 0, toHz: ask.edgeHz } : { fromHz: ask.edgeHz, toHz: Infinity }),
      below: passLevelDb - down,
    });
  }
  for (const { measure, wanted } of readings) {
    if (measure.measure !== 'level' || wanted?.is !== 'at-most') continue;
    const beyond = low ? measure.atHz > ask.edgeHz : measure.atHz < ask.edgeHz;
    if (beyond)
      regions.push({
        ...(low ? { fromHz: measure.atHz, toHz: Infinity } : { fromHz: 0, toHz: measure.atHz }),
        above: wanted.value,
      });
  }
  return regions;
}
