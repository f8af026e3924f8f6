import { deal, type Place } from '@/core/practice/deal';
import { reasonAbout, type Reasoning } from '@/core/practice/reasoning';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** How a practice board is found out. */
export const practiceReasoning: Job<
  { place: Place; sheets: readonly Sheet[] },
  never,
  Reasoning
> = ({ place, sheets }) => reasonAbout(deal(place, sheets));
