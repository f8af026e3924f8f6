import { AcAnalysis } from '@/core/analysis/ac/ac';
import { bareCircuit } from '@/core/bench/board-circuit';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import { isValued, valueOfPart, withFactors } from '@/core/mistakes/mistake';
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
  const { sound, built, noiseDb, sheet } = board;
  const whole = new AcAnalysis(sound.circuit);
  switch (asked.is) {
    case 'level': {
      const hz = Float64Array.of(asked.hz);
      const [[db], [shouldDb]] = [built.analysis, whole].map((of) => heard(of, asked.net, hz));
      return { is: 'level', db: db + noiseDb * normalDeviate(random), shouldDb };
    }
    case 'sweep': {
      const hz = spaced(sheet.view.fromHz, sheet.view.toHz, SWEEP_POINTS);
      const [levels, should] = [built.analysis, whole].map((of) => heard(of, asked.net, hz));
      const levelDb = Array.from(levels, (db) => db + noiseDb * normalDeviate(random));
      const curve = { frequenciesHz: Array.from(hz), levelDb };
      return { is: 'sweep', curve, shouldDb: Array.from(should) };
    }
    case 'resistance': {
      const [a, b] = asked.between;
      const off = 1 + METER * normalDeviate(random);
      const bare = (circuit: Circuit) => bareCircuit({ circuit, fixed: sound.fixed });
      return {
        is: 'resistance',
        ohms: deadOhms(bare(withFactors(built.circuit, built.factors)), a, b) * off,
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
  return { x, y: heard(new AcAnalysis(sound.circuit), net, x) };
}

/** Levels at a net, at least what a meter hears. */
const heard = (analysis: AcAnalysis, net: string, hz: Float64Array): Float64Array =>
  levelsDb(analysis.voltage(net, hz)).map((db) => Math.max(FLOOR_DB, db));

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
