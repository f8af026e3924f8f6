import { bankPicture } from '@/core/bank/picture';
import { anglesPicture } from '@/core/crossover/angles';
import { boardPicture } from '@/core/crossover/board/picture';
import { tiersPicture } from '@/core/crossover/board/tiers';
import { decayPicture } from '@/core/crossover/decay';
import { crossoverDelayPicture } from '@/core/crossover/group-delay';
import type { Hump } from '@/core/crossover/humps';
import { schoolsPicture } from '@/core/crossover/schools';
import { strainPicture } from '@/core/crossover/strain';
import { stepPicture } from '@/core/crossover/time';
import { trapsPicture } from '@/core/crossover/traps';
import type { Sheet } from '@/core/sheet/schema';
import { biasLens } from './bias';
import { cellLens } from './cell';
import { controlLens } from './control';
import { delayLens } from './delay';
import { differenceLens } from './difference';
import { driveLens } from './drive';
import { harmonicsLens } from './harmonics';
import { headroomLens } from './headroom';
import { impedanceLens } from './impedance';
import { withoutPause, type Pause } from './layers';
import { mapLens } from './map';
import { noiseLens } from './noise';
import { restLens } from './rest';
import { scopeLens } from './scope';
import { singingLens } from './singing';
import { timeLens } from './time';
import { travelLens } from './travel';

/** How a lens is asked: the sheet, what is asked of it, and what is awaited between slices of its work. */
type Ask<Request, Picture> = (sheet: Sheet, request: Request, pause: Pause) => Promise<Picture>;

const lens = <Request extends object, Picture>(ask: Ask<Request, Picture>) => ask;

/** A lens of which nothing more is asked than its picture. */
const plain = <Picture>(ask: (sheet: Sheet, pause: Pause) => Promise<Picture>) =>
  lens((sheet, _request: object, pause) => ask(sheet, pause));

/** The lenses that are computed only while they are looked through: one file and one line each. */
export const LENSES = {
  delay: plain(delayLens),
  time: plain(timeLens),
  harmonics: lens(harmonicsLens),
  map: plain(mapLens),
  rest: plain(restLens),
  impedance: plain(impedanceLens),
  noise: plain(noiseLens),
  headroom: plain(headroomLens),
  difference: plain(differenceLens),
  travel: lens(travelLens),
  control: lens(controlLens),
  scope: lens(scopeLens),
  drive: lens(driveLens),
  singing: lens(singingLens),
  cell: lens(cellLens),
  bias: lens(biasLens),
  bank: plain(bankPicture),
  crossoverTraps: lens((sheet, request: { way: string; hump: Hump }) =>
    Promise.resolve(trapsPicture(sheet, request)),
  ),
  crossoverStep: plain((sheet) => Promise.resolve(stepPicture(sheet))),
  crossoverAngles: plain((sheet) => Promise.resolve(anglesPicture(sheet))),
  crossoverDelay: plain((sheet) => Promise.resolve(crossoverDelayPicture(sheet))),
  crossoverDecay: plain((sheet) => Promise.resolve(decayPicture(sheet))),
  crossoverBoard: plain((sheet) => Promise.resolve(boardPicture(sheet))),
  crossoverTiers: plain((sheet) => Promise.resolve(tiersPicture(sheet))),
  crossoverSchools: plain((sheet) => Promise.resolve(schoolsPicture(sheet))),
  crossoverStrain: plain((sheet) => Promise.resolve(strainPicture(sheet))),
};

type Lenses = typeof LENSES;

/** What each lens answers. */
export type LensPictures = { [N in keyof Lenses]: Awaited<ReturnType<Lenses[N]>> };

/** A question of one of them. */
export type LensRequest = {
  [N in keyof Lenses]: { lens: N } & Parameters<Lenses[N]>[1];
}[keyof Lenses];

export type LensPicture = LensPictures[keyof LensPictures];

/** @param pause awaited between slices of the work */
export function lensPicture<R extends LensRequest>(
  sheet: Sheet,
  request: R,
  pause: Pause = withoutPause,
): Promise<LensPictures[R['lens']]> {
  const ask = LENSES[request.lens] as unknown as Ask<R, LensPictures[R['lens']]>;
  return ask(sheet, request, pause);
}
