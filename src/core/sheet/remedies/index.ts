import { ReedError } from '@/core/errors';
import { jointsOf, type Joint } from '../joints';
import type { SheetDesign, Stage } from '../schema';
import { bootstrap } from './bootstrap';
import { buffer } from './buffer';
import type { Complaint, Remedy } from './remedy';
import { scale } from './scale';
import { swap } from './swap';

/** What can be done about a joint, in the order it is offered. One file and one line each. */
export const REMEDIES: readonly Remedy[] = [buffer, scale, swap, bootstrap];

/** A remedy as it would be for one joint. */
export interface Offered {
  id: string;
  words: string;
  stages: Stage[];
  /** What all joints of the path together would lose, and lose now, dB. */
  lossDb: number;
  lostDb: number;
}

/** A remedy that gains less than this is none, dB. */
const WORTH_DB = 0.02;
/** With less than this lost in all nothing is left to be mended, dB. */
const MENDED_DB = 0.1;

/**
 * What can be done about a joint of the first way, each with what it really comes to: the whole path
 * is solved with it. Of a remedy that comes in several strengths the mildest that mends it is offered,
 * else the one that does most.
 */
export function remediesFor(design: SheetDesign, joint: Joint, fromHz: number): Offered[] {
  const complaint: Complaint = { design, joint, fromHz };
  const lostDb = lostAlong(design, joint.atHz);
  return REMEDIES.flatMap((remedy) => {
    let best: Offered | undefined;
    // What cannot be drawn, designed or solved is not offered.
    for (const { stages, words } of possible(() => remedy.treatments(complaint)) ?? []) {
      const ways = design.ways.map((way, w) => (w === 0 ? { ...way, stages } : way));
      const lossDb = possible(() => lostAlong({ ...design, ways }, joint.atHz));
      if (lossDb === undefined || lossDb < lostDb + WORTH_DB) continue;
      if (!best || lossDb > best.lossDb) best = { id: remedy.id, words, stages, lossDb, lostDb };
      if (best.lossDb > -MENDED_DB) break;
    }
    return best ? [best] : [];
  });
}

function possible<T>(compute: () => T): T | undefined {
  try {
    return compute();
  } catch (error) {
    if (error instanceof ReedError) return undefined;
    throw error;
  }
}

/** What all joints of the way lose together. */
const lostAlong = (design: SheetDesign, atHz: number): number =>
  jointsOf(design, 0, atHz).reduce((sum, j) => sum + j.lossDb, 0);
