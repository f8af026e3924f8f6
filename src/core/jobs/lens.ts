import { lensPicture, type LensPicture, type LensRequest } from '@/core/lenses/lens';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** What one of the lenses shows that are worked out only while they are looked through. */
export const lens: Job<{ sheet: Sheet; request: LensRequest }, never, LensPicture> = (
  { sheet, request },
  { pause },
) => lensPicture(sheet, request, pause);
