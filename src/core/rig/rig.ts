import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import { normalDeviate } from '@/core/random';
import { DEGREES_PER_DB } from '@/core/response/decibels';
import { levelsDb, phaseDegrees } from '@/core/response/response';
import { boardRandom, drawBoard } from '@/core/spread/deviations';
import { deviatingBy, type Rules } from '@/core/spread/rules';
import { faultParts, withFault, type Fault } from './fault';

/** A board whose values are drawn. */
export interface BoardRequest {
  circuit: Circuit;
  /** The same board for the same seed. */
  seed: number;
  /** How far parts of the board are off, by kind or id. */
  rules: Rules;
  faults: readonly Fault[];
  /** Parts that are not of the board. */
  fixed?: ReadonlySet<string>;
}

export interface RigRequest extends BoardRequest {
  probe: string;
  frequenciesHz: readonly number[];
  /** Noise of each level, one standard deviation. Phases have what belongs to it. */
  noiseDb: number;
  /** By how much what is read stands above what there is; without it a level that nobody knows. */
  gainDb?: number;
}

/** A board as it is, and what it is made of. */
export interface BuiltBoard {
  analysis: AcAnalysis;
  circuit: Circuit;
  /** Every value that is off, as a factor of what it should be. */
  factors: Record<string, number>;
  /** What is drawn after the board’s values, for what measuring adds. */
  random: () => number;
}

/** A board that was measured, and what it really is. */
export interface Measured {
  take: MeasuredCurve;
  gainDb: number;
  /** The board: every value that is off, as a factor of what it should be. */
  factors: Record<string, number>;
  circuit: Circuit;
}

/** What nobody knows of a level: up to so much either way. */
const UNKNOWN_DB = 3;

/**
 * Build a simulated board: values drawn from tolerances, faults put in.
 *
 * @throws ReedError `range` for a fault that cannot be
 */
export function buildBoard(request: BoardRequest): BuiltBoard {
  const { seed, rules, faults, fixed } = request;
  const circuit = faults.reduce(withFault, request.circuit);
  const analysis = new AcAnalysis(circuit);
  const random = boardRandom(seed, 0);
  // A part with a fault is as far off as that says, and no further.
  const wrong = new Set(faults.flatMap(faultParts));
  // Drawn for every part of the sound board, so that a fault changes nothing else.
  const whole = new AcAnalysis(request.circuit);
  const sound = deviatingBy(whole, rules, fixed);
  const drawn = new Float64Array(sound.length);
  drawBoard(sound, random, 0, drawn);
  const factors: Record<string, number> = {};
  sound.forEach(({ part, parameter: place }, i) => {
    const { name } = whole.system.parameters[place];
    const parameter = analysis.system.places.get(part)?.get(name);
    if (parameter === undefined || wrong.has(part)) return;
    factors[part] = 1 + drawn[i];
    analysis.values[parameter] *= factors[part];
  });
  analysis.update();
  return { analysis, circuit, factors, random };
}

/**
 * Measure a simulated board: noise on what is read, at a level that nobody told.
 *
 * @throws ReedError `range` for a fault that cannot be, `circuit` where the board has no response
 */
export function measureBoard(request: RigRequest): Measured {
  const { probe, frequenciesHz, noiseDb } = request;
  const { analysis, circuit, factors, random } = buildBoard(request);
  const gainDb = request.gainDb ?? UNKNOWN_DB * (2 * random() - 1);
  const { re, im } = analysis.voltage(probe, Float64Array.from(frequenciesHz));
  const levels = levelsDb({ re, im });
  if (levels.every((db) => db < -300))
    throw new ReedError('circuit', `Nothing arrives at “${probe}” of this board.`, { net: probe });
  const off = () => noiseDb * normalDeviate(random);
  return {
    take: {
      frequenciesHz: [...frequenciesHz],
      levelDb: Array.from(levels, (db) => db + gainDb + off()),
      phaseDegrees: frequenciesHz.map(
        (_, k) => phaseDegrees(re[k], im[k]) + off() * DEGREES_PER_DB,
      ),
    },
    gainDb,
    factors,
    circuit,
  };
}
