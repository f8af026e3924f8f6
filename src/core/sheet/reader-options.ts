import type { Band } from '@/core/response/landmarks';
import type { ReaderOptions } from '@/core/response/reader';
import { pathLandmarks } from './landmarks';
import { contextOf } from './layers';
import type { PathVersion } from './path-circuit';
import type { SheetDesign } from './schema';

/** Readings are looked for this far beyond the picture. */
const BEYOND = 100;

/** Where readings are looked for, of a picture. */
export const searchedAround = ({ fromHz, toHz }: Band): Band => ({
  fromHz: fromHz / BEYOND,
  toHz: toHz * BEYOND,
});

/** How the readings of a way are read: where, with what is known of its curve, and what its ask means. */
export const readerOptions = (
  sheet: SheetDesign & { view: Band },
  way: number,
  version: PathVersion = 'built',
): Pick<ReaderOptions, 'span' | 'landmarks' | 'context'> => ({
  span: searchedAround(sheet.view),
  landmarks: pathLandmarks(sheet.ways[way], version),
  context: contextOf(sheet),
});
