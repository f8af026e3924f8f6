import { boardCircuit, type BoardCircuit } from '@/core/bench/board-circuit';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { seededRandom, shuffled } from '@/core/random';
import { spaced } from '@/core/response/landmarks';
import { levelsAt } from '@/core/response/levels-at';
import { withFault, type Fault } from '@/core/rig/fault';
import { buildBoard, type BuiltBoard } from '@/core/rig/rig';
import type { Sheet } from '@/core/sheet/schema';
import type { Rules } from '@/core/spread/rules';
import { culprits, LADDER } from './ladder';

/** Which board of the ladder. */
export interface Place {
  /** Other boards for another number. */
  deal: number;
  rung: number;
  board: number;
}

/** Boards on each rung. */
export const BOARDS = 5;

export const keyOf = ({ deal, rung, board }: Place): string => `${deal}/${rung}/${board}`;

/** A board that somebody got wrong, and what it should have been. */
export interface PracticeBoard {
  place: Place;
  sheet: Sheet;
  /** As it should be. */
  sound: BoardCircuit;
  /** As it is. */
  built: BuiltBoard;
  fault: Fault;
  noiseDb: number;
}

const POINTS = 61;
/** Levels below this are not looked at for what a fault does. */
const DEEP_DB = -50;
/** Boards are drawn so often until one shows its fault. */
const TRIES = 40;

/**
 * A board of the ladder: the same for the same place, with a fault that is seen at its output.
 *
 * @param sheets that it may be of
 * @throws ReedError `range` for a place that is not on the ladder, or where none of its sheets is there
 */
export function deal(place: Place, sheets: readonly Sheet[]): PracticeBoard {
  const rung = LADDER[place.rung] as (typeof LADDER)[number] | undefined;
  if (!rung) throw new ReedError('range', `The ladder has no rung ${place.rung + 1}.`);
  const known = sheets.filter((s) => rung.sheets.includes(s.id));
  for (let attempt = 0; attempt < TRIES && known.length > 0; attempt++) {
    const random = seededRandom(seedOf(place) * TRIES + attempt);
    const [sheet] = shuffled(known, random);
    const whole = boardCircuit(sheet, undefined);
    const sound = { ...whole, rules: narrowed(whole.rules, rung.tolerances) };
    const { circuit, probe, fixed, rules } = sound;
    const hz = spaced(sheet.view.fromHz, sheet.view.toHz, POINTS);
    for (const fault of rung.faults(circuit, culprits(circuit, fixed, random), random)) {
      if (!isSeen(circuit, fault, probe, hz, rung.leastDb)) continue;
      const seed = seedOf(place);
      const built = buildBoard({ circuit, seed, rules, faults: [fault], fixed });
      return { place, sheet, sound, built, fault, noiseDb: rung.noiseDb };
    }
  }
  throw new ReedError('range', `No board could be made for rung ${place.rung + 1}.`);
}

export const seedOf = ({ deal: number, rung, board }: Place): number =>
  (number * 100 + rung) * 100 + board;

const narrowed = (rules: Rules, part: number): Rules =>
  Object.fromEntries(
    Object.entries(rules).map(([id, rule]) => [id, { ...rule, tolerance: rule.tolerance * part }]),
  );

/** Whether a fault changes the level at the output by so much somewhere where there is one. */
function isSeen(
  circuit: Circuit,
  fault: Fault,
  probe: string,
  hz: Float64Array,
  leastDb: number,
): boolean {
  try {
    const [sound, wrong] = [circuit, withFault(circuit, fault)].map((of) =>
      levelsAt(of, probe, hz),
    );
    return sound.some(
      (db, k) => Math.max(db, wrong[k]) > DEEP_DB && Math.abs(wrong[k] - db) >= leastDb,
    );
  } catch (error) {
    // A board that cannot be solved has nothing to be measured.
    if (error instanceof ReedError) return false;
    throw error;
  }
}
