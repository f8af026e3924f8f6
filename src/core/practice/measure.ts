import { AcAnalysis } from '@/core/analysis/ac/ac';
import { bareCircuit } from '@/core/bench/board-circuit';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import { isValued, valueOfPart, withPartValue } from '@/core/mistakes/mistake';
import { normalDeviate, seededRandom } from '@/core/random';
import { spaced } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { faultParts } from '@/core/rig/fault';
import { deadOhms } from '@/core/suspects/dead-resistance';
import { seedOf, type PracticeBoard } from './deal';
import type { Asked } from './record';

/** What each measurement costs: minutes at the bench, more or less. */
export const COSTS: Readonly<Record<Asked['is'], number>> = {
  level: 1,
  resistance: 2,
  sweep: 6,
  part: 8,
};
/** And a part that is blamed and was good: it is taken out, measured, and put back. */
export const BLAMED_COST = 10;

/** What was measured, and what a sound board would have given. */
export type Found =
  | { is: 'level'; db: number; shouldDb: number }
  | { is: 'sweep'; curve: MeasuredCurve; shouldDb: number[] }
  /** Infinity where it is open, 0 where it is joined. */
  | { is: 'resistance'; ohms: number; shouldOhms: number }
  /** Nothing where nothing is soldered in. */
  | { is: 'part'; value: number | null; should: number };

const SWEEP_POINTS = 61;
const PICTURE_POINTS = 161;
/** What an ohmmeter and a capacitance meter are off by. */
const METER = 0.003;
/** The meter hears no less, dB. */
const FLOOR_DB = -90;

/**
 * One measurement of a practice board; the same for the same turn.
 *
 * @throws ReedError `range` for a net or a part that is not there
 */
export function measure(board: PracticeBoard, asked: Asked, turn: number): Found {
  const random = seededRandom(seedOf(board.place) * 1000 + turn + 1);
  const { sound, noiseDb, sheet } = board;
  switch (asked.is) {
    case 'level': {
      const [db] = levelsAt(board, asked.net, Float64Array.of(asked.hz));
      const [shouldDb] = levelsOf(new AcAnalysis(sound.circuit), asked.net, [asked.hz]);
      return { is: 'level', db: db + noiseDb * normalDeviate(random), shouldDb };
    }
    case 'sweep': {
      const hz = Array.from(spaced(sheet.view.fromHz, sheet.view.toHz, SWEEP_POINTS));
      const levels = levelsAt(board, asked.net, Float64Array.from(hz));
      const levelDb = Array.from(levels, (db) => db + noiseDb * normalDeviate(random));
      const shouldDb = Array.from(levelsOf(new AcAnalysis(sound.circuit), asked.net, hz));
      return { is: 'sweep', curve: { frequenciesHz: hz, levelDb }, shouldDb };
    }
    case 'resistance': {
      const [a, b] = asked.between;
      const off = 1 + METER * normalDeviate(random);
      const bare = (circuit: Circuit) => bareCircuit({ circuit, fixed: sound.fixed });
      return {
        is: 'resistance',
        ohms: deadOhms(bare(asItIs(board)), a, b) * off,
        shouldOhms: deadOhms(bare(sound.circuit), a, b),
      };
    }
    case 'part': {
      const own = sound.circuit.parts.find((p) => p.id === asked.part);
      if (!own || !isValued(own))
        throw new ReedError('range', `There is no part “${asked.part}” to measure.`);
      const off = 1 + METER * normalDeviate(random);
      return { is: 'part', value: valueThere(board, asked.part, off), should: valueOfPart(own) };
    }
  }
}

/** What a sound board gives at a net over the sheet’s picture, dB. */
export function soundLevels(
  { sound, sheet }: PracticeBoard,
  net: string,
): { x: Float64Array; y: Float64Array } {
  const x = spaced(sheet.view.fromHz, sheet.view.toHz, PICTURE_POINTS);
  return { x, y: levelsOf(new AcAnalysis(sound.circuit), net, Array.from(x)) };
}

/** Levels of the board as it is, at least what a meter hears. */
const levelsAt = ({ built }: PracticeBoard, net: string, hz: Float64Array): Float64Array =>
  levelsDb(built.analysis.voltage(net, hz)).map((db) => Math.max(FLOOR_DB, db));

const levelsOf = (analysis: AcAnalysis, net: string, hz: readonly number[]): Float64Array =>
  levelsDb(analysis.voltage(net, Float64Array.from(hz))).map((db) => Math.max(FLOOR_DB, db));

/** What is really in the place of a part, as a meter reads it with one leg lifted. */
function valueThere({ sound, built, fault }: PracticeBoard, id: string, off: number) {
  const isFaulty = faultParts(fault).includes(id);
  if (isFaulty && fault.is === 'missing') return null;
  // What lies across a part is gone when its leg is lifted.
  const circuit = isFaulty && fault.is === 'shorted' ? sound.circuit : built.circuit;
  const part = circuit.parts.find((p) => p.id === id);
  if (!part || !isValued(part)) return null;
  return valueOfPart(part) * (built.factors[id] ?? 1) * off;
}

/** The circuit with every value as it was drawn. */
function asItIs({ built }: PracticeBoard): Circuit {
  const { circuit, factors } = built;
  return {
    ...circuit,
    parts: circuit.parts.map((p) =>
      isValued(p) && p.id in factors ? withPartValue(p, valueOfPart(p) * factors[p.id]) : p,
    ),
  };
}
