import { channelParts } from '@/core/crossover/parts-list';
import type { PartsList } from '@/core/sheet/parts-list';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** Everything that a board of a sheet is built of. */
export const partsList: Job<{ sheet: Sheet }, never, PartsList> = ({ sheet }) =>
  channelParts(sheet);
