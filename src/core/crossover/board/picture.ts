import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { soundLevels } from '@/core/speaker/sound-levels';
import { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import { evenly, spreadAboutMean } from '@/core/speaker/tune/measure';
import { isCrossover, type CrossoverDesign } from '../crossover-design';
import { speakerOf } from '../speaker-of';
import { coilPairs, couplingParts, quietestTurn, type CoilPair, type QuietTurn } from './couplings';
import { boardOf, type BoardPart } from './layout';

/** What a pair of coils does to what is heard, for itself. */
export interface PairEffect {
  a: string;
  b: string;
  k: number;
  /** The largest change of the sum that it makes, and where. */
  db: number;
  hz: number;
}

export interface BoardPicture {
  frequenciesHz: Float64Array;
  /** The sum as if the coils were far from each other, and as they lie. */
  apartDb: Float64Array;
  coupledDb: Float64Array;
  withinApartDb: number;
  withinCoupledDb: number;
  pairs: PairEffect[];
  /** How a coil is best turned, for each that shares more than it needs to. */
  turns: ({ stage: string; part: string; name: string } & QuietTurn)[];
  problem: string | null;
}

const POINTS = 181;
/** A turn is told of where it takes away so much of what a coil shares, and that is as much as this. */
const WORTH = 0.3;
const SHARES = 2e-3;

/** What the coils of a board share, and what that does. */
export function boardPicture(sheet: Sheet): BoardPicture {
  const frequenciesHz = evenly(sheet.view.fromHz, sheet.view.toHz, POINTS);
  const empty = new Float64Array(0);
  const none: BoardPicture = {
    frequenciesHz,
    apartDb: empty,
    coupledDb: empty,
    withinApartDb: 0,
    withinCoupledDb: 0,
    pairs: [],
    turns: [],
    problem: null,
  };
  if (!isCrossover(sheet)) return none;
  try {
    const { parts } = boardOf(sheet);
    const pairs = coilPairs(parts);
    const sumWith = (of: readonly CoilPair[], hz: Float64Array) => sumDb(sheet, of, hz);
    const apartDb = sumWith([], frequenciesHz);
    const band = evenly(sheet.crossover.fromHz, sheet.crossover.toHz, POINTS);
    return {
      ...none,
      apartDb,
      coupledDb: sumWith(pairs, frequenciesHz),
      withinApartDb: spreadAboutMean(sumWith([], band)),
      withinCoupledDb: spreadAboutMean(sumWith(pairs, band)),
      pairs: pairs.map((pair) =>
        effectOf(pair, sumWith([pair], frequenciesHz), apartDb, frequenciesHz),
      ),
      turns: parts.flatMap((coil) => turnOf(coil, parts)),
    };
  } catch (error) {
    return { ...none, problem: messageOf(error) };
  }
}

/** The sum with some of the pairs coupled. */
function sumDb(
  design: CrossoverDesign,
  pairs: readonly CoilPair[],
  hz: Float64Array,
): Float64Array {
  const document = speakerOf({
    ...design,
    crossover: { ...design.crossover, board: undefined },
  });
  const speaker = new SolvedSpeaker({
    ...document,
    network: [...document.network, ...couplingParts(design, pairs)],
  });
  return soundLevels(speaker.sound(speaker.electrical(hz)).sum);
}

function effectOf(
  { a, b, k }: CoilPair,
  coupled: Float64Array,
  apart: Float64Array,
  hz: Float64Array,
): PairEffect {
  const change = coupled.map((db, i) => db - apart[i]);
  const at = change.reduce((most, db, i) => (Math.abs(db) > Math.abs(change[most]) ? i : most), 0);
  return { a: a.name, b: b.name, k, db: change[at], hz: hz[at] };
}

function turnOf(coil: BoardPart, parts: readonly BoardPart[]): BoardPicture['turns'] {
  if (!coil.coil) return [];
  const turn = quietestTurn(coil, parts);
  if (turn.shared < SHARES || turn.shares > (1 - WORTH) * turn.shared) return [];
  const { stage, part, name } = coil;
  return [{ stage, part, name, ...turn }];
}
