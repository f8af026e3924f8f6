import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { Successive } from '@/core/analysis/ac/successive';
import { figuresOf, growth, ON_AXIS, polesOf, type RootFigures } from '@/core/analysis/poles/poles';
import { messageOf, ReedError } from '@/core/errors';
import { HALF_POWER_DB } from '@/core/response/decibels';
import type { Extreme } from '@/core/response/extremes';
import type { Band, Landmark } from '@/core/response/landmarks';
import { ResponseReader } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { landmarksOf, spanAround } from '@/core/solve/span-of';
import type { Varied } from './vary';

/** A filter with its control at one value. */
export interface TuneRow {
  value: number;
  /** Where half the plateau's power passes: above it, or below where nothing above ends. */
  halfPowerHz: number | null;
  /** The highest point, where the level falls to both sides of it. */
  peakHz: number | null;
  peakDb: number;
  plateauDb: number;
  /** Of the least damped pair of poles; below nought where it grows, null where there is no pair. */
  q: number | null;
  stable: boolean;
}

/** Looked at in any case, and far beyond. */
const HEARD: Band = { fromHz: 20, toHz: 20_000 };
/** So many times beyond a pole its own bend is over. */
const CLEAR = 3;
/** A plateau that reaches an end of what is looked at is read there, where it is flattest, dB. */
const FLAT_DB = 3e-3;

/**
 * What a control does: the circuit biased and solved anew at each value.
 *
 * @throws ReedError `circuit` where no source drives it, `convergence` naming the value whose operating point was not found, `range` for a
 *   value that cannot be
 */
export function* tune(at: Varied, probe: string, values: Iterable<number>): Generator<TuneRow> {
  const solved = new Successive();
  for (const value of values) {
    const circuit = at(value);
    let analysis: AcAnalysis;
    try {
      analysis = solved.of(circuit);
    } catch (error) {
      if (!(error instanceof ReedError) || error.code !== 'convergence') throw error;
      throw new ReedError('convergence', `At ${value}: ${messageOf(error)}`, error.place);
    }
    yield { value, ...withoutPair(filterFigures(analysis, probe)) };
  }
}

const withoutPair = ({ pairHz: _, ...figures }: FilterFigures) => figures;

export interface FilterFigures extends Omit<TuneRow, 'value'> {
  /** Of its least damped pair of poles, null where there is none. */
  pairHz: number | null;
}

/**
 * What a solved filter does at one setting.
 *
 * @param within poles beyond this band are left out of sight; where nothing is said, none is
 * @throws ReedError `circuit` where no source drives it
 */
export function filterFigures(analysis: AcAnalysis, probe: string, within?: Band): FilterFigures {
  const { re, im } = analysis.rhs;
  if (!re.some((x, i) => x !== 0 || im[i] !== 0))
    throw new ReedError(
      'circuit',
      'No source has an a.c. amplitude, so there is no response: give the signal’s source acVolts.',
    );
  const poles = polesOf(analysis);
  const figures = figuresOf(poles);
  const reader = new ResponseReader(responseOf(analysis, probe), around(figures, within));
  const { value: peakDb, hz, isPeak } = reader.highest();
  const pairs = figures.filter((f) => f.q !== null);
  const leaning = (f: RootFigures) => growth(f.roots[0]);
  const least = pairs.reduce<RootFigures | undefined>(
    (a, b) => (a && leaning(a) >= leaning(b) ? a : b),
    undefined,
  );
  const plateau = plateauOf(reader);
  return {
    halfPowerHz: halfPower(reader, plateau, 'upper') ?? halfPower(reader, plateau, 'lower'),
    peakHz: isPeak ? hz : null,
    peakDb,
    plateauDb: plateau.value,
    q: least && Number.isFinite(least.q) ? least.q : null,
    pairHz: least?.f0Hz ?? null,
    stable: poles.every((p) => growth(p) < -ON_AXIS),
  };
}

function plateauOf(reader: ResponseReader): Extreme {
  const plateau = reader.plateau();
  for (const hz of [reader.span.fromHz, reader.span.toHz]) {
    const value = reader.levelAt(hz);
    if (Math.abs(value - plateau.value) < FLAT_DB) return { hz, value };
  }
  return plateau;
}

function halfPower(
  reader: ResponseReader,
  { hz, value }: Extreme,
  side: 'upper' | 'lower',
): number | null {
  try {
    return reader.crossing(value - HALF_POWER_DB, hz, side, HALF_POWER_DB).hz;
  } catch (error) {
    if (error instanceof ReedError && error.code === 'range') return null;
    throw error;
  }
}

/** Where its curve bends, and where its readings are looked for: what grows bends it as what dies away. */
function around(
  poles: readonly RootFigures[],
  within?: Band,
): { span: Band; landmarks: Landmark[] } {
  const { fromHz, toHz } = within ?? { fromHz: 0, toHz: Infinity };
  const seen = poles.filter(({ f0Hz }) => f0Hz >= fromHz && f0Hz <= toHz);
  const landmarks = landmarksOf(seen.map(({ f0Hz, q }) => ({ f0Hz, q: q && Math.abs(q) })));
  const span = spanAround(landmarks, HEARD);
  // Nor are the plateaus that poles out of sight make beyond themselves.
  const below = poles.flatMap(({ f0Hz }) => (f0Hz < fromHz ? f0Hz * CLEAR : []));
  const above = poles.flatMap(({ f0Hz }) => (f0Hz > toHz ? f0Hz / CLEAR : []));
  return {
    landmarks,
    span: {
      fromHz: Math.min(Math.max(span.fromHz, ...below), HEARD.fromHz),
      toHz: Math.max(Math.min(span.toHz, ...above), HEARD.toHz),
    },
  };
}
