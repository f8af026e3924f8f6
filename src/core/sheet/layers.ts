import { readingContextOf } from '@/core/design/bands';
import type { ReadingContext } from '@/core/response/readings';
import { followsAsk } from './make';
import type { PathVersion } from './path-circuit';
import type { Sheet, SheetDesign } from './schema';

export type LayerId = 'ideal' | 'built' | `keep:${string}`;

/** What each layer of a sheet is solved from. */
export interface LayerSource {
  id: LayerId;
  design: SheetDesign;
  version: PathVersion;
}

/** The layers of a sheet in the order they are listed: ideal, built, the keeps that are shown. */
export function layersOf(sheet: Sheet): LayerSource[] {
  return [
    { id: 'ideal', design: sheet, version: 'ideal' },
    { id: 'built', design: sheet, version: 'built' },
    ...sheet.keeps
      .filter((k) => k.shown)
      .map((k): LayerSource => ({ id: `keep:${k.id}`, design: k.design, version: 'built' })),
  ];
}

/** What the readings of a design's layers go by: its ask, as long as it is made by it. */
export const contextOf = (design: SheetDesign): ReadingContext | undefined =>
  followsAsk(design) && !design.bank ? readingContextOf(design.ask) : undefined;
