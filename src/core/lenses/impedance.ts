import { spaced } from '@/core/response/landmarks';
import { builtWay, jointFrequency, jointsOf } from '@/core/sheet/joints';
import type { Sheet } from '@/core/sheet/schema';
import type { CurvesOfBoards } from './boards';
import { withoutPause, type Pause } from './layers';

/** What both sides of a joint show each other, over frequency. */
export interface JointPicture {
  /** Stage ids on both sides; "source" and "load" at the ends. */
  before: string;
  after: string;
  frequenciesHz: Float64Array;
  /** Magnitudes; infinite for an open end. */
  sourceOhms: Float64Array;
  loadOhms: Float64Array;
  lossDb: Float64Array;
  /** The greatest loss within the picture, and where. */
  worst: { lossDb: number; atHz: number };
  /** At the frequency that joints are judged at. */
  judged: { atHz: number; sourceOhms: number; loadOhms: number; lossDb: number };
}

const POINTS = 72;
/** Points between two pauses. */
const SLICE = 12;

/** Impedances both ways at every joint of the built path, with what the loading costs. */
export async function impedanceLens(
  sheet: Sheet,
  pause: Pause = withoutPause,
): Promise<JointPicture[]> {
  const { fromHz, toHz } = sheet.view;
  const hz = spaced(fromHz, toHz, POINTS);
  const built = builtWay(sheet, 0);
  const judged = jointsOf(sheet, 0, jointFrequency(sheet.ask), built);
  const pictures = judged.map((joint): JointPicture => ({
    before: joint.before,
    after: joint.after,
    frequenciesHz: hz,
    sourceOhms: new Float64Array(POINTS),
    loadOhms: new Float64Array(POINTS),
    lossDb: new Float64Array(POINTS),
    worst: { lossDb: 0, atHz: hz[0] },
    judged: joint,
  }));
  for (let k = 0; k < POINTS; k++) {
    if (k % SLICE === 0) await pause();
    jointsOf(sheet, 0, hz[k], built).forEach(({ sourceOhms, loadOhms, lossDb }, j) => {
      const own = pictures[j];
      own.sourceOhms[k] = sourceOhms;
      own.loadOhms[k] = loadOhms;
      own.lossDb[k] = lossDb;
      if (lossDb < own.worst.lossDb) own.worst = { lossDb, atHz: hz[k] };
    });
  }
  return pictures;
}

/** A band needs fewer points than a curve that is read. */
const BAND_POINTS = 36;

/** Both sides of every joint of boards, by `jointCurve`. */
export const impedancesOfBoards: CurvesOfBoards = (sheet) => {
  const hz = spaced(sheet.view.fromHz, sheet.view.toHz, BAND_POINTS);
  const built = builtWay(sheet, 0);
  const names = jointsOf(sheet, 0, hz[0], built).flatMap((joint) =>
    SIDES.map((side) => jointCurve(joint, side)),
  );
  return {
    places: Object.fromEntries(names.map((name) => [name, hz])),
    read({ analysis }) {
      const found: Record<string, Float64Array> = Object.fromEntries(
        names.map((name) => [name, new Float64Array(hz.length)]),
      );
      hz.forEach((at, k) => {
        for (const joint of jointsOf(sheet, 0, at, { ...built, analysis }))
          for (const side of SIDES) found[jointCurve(joint, side)][k] = joint[side];
      });
      return found;
    },
  };
};

/** The curves of a joint. */
export const SIDES = ['sourceOhms', 'loadOhms'] as const;

/** The name of what one side of a joint shows. */
export const jointCurve = (
  { before, after }: { before: string; after: string },
  side: (typeof SIDES)[number],
): string => `${before} ${after} ${side}`;
