import { bankPicture, type BankPicture } from '@/core/bank/picture';
import type { Sheet } from '@/core/sheet/schema';
import { delayLens, type DelayTrace } from './delay';
import { harmonicsLens, type HarmonicsPicture, type HarmonicsRequest } from './harmonics';
import { withoutPause, type OverLayers, type Pause } from './layers';
import { mapLens, type MapPicture } from './map';
import { restLens, type AtRest } from './rest';
import { timeLens, type TimePicture } from './time';

/** A question of one of the lenses that are computed only while they are looked through. */
export type LensRequest =
  | { lens: 'delay' }
  | { lens: 'time' }
  | ({ lens: 'harmonics' } & HarmonicsRequest)
  | { lens: 'map' }
  | { lens: 'rest' }
  | { lens: 'bank' };

/** What each lens answers. */
export interface LensPictures {
  delay: OverLayers<DelayTrace>;
  time: TimePicture[];
  harmonics: HarmonicsPicture;
  map: MapPicture;
  rest: OverLayers<AtRest[]>;
  bank: BankPicture;
}
export type LensPicture = LensPictures[keyof LensPictures];

/** @param pause awaited between slices of the work */
export function lensPicture(
  sheet: Sheet,
  request: LensRequest,
  pause: Pause = withoutPause,
): Promise<LensPicture> {
  switch (request.lens) {
    case 'delay':
      return delayLens(sheet, pause);
    case 'time':
      return timeLens(sheet, pause);
    case 'harmonics':
      return harmonicsLens(sheet, request, pause);
    case 'map':
      return mapLens(sheet, pause);
    case 'rest':
      return restLens(sheet, pause);
    case 'bank':
      return bankPicture(sheet, pause);
  }
}
