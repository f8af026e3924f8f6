import { mendBoard as mend, type Mending, type MendRequest } from '@/core/bench/mend';
import type { Job } from './job';

/** What brings a board in whose culprit is known. */
export const mendBoard: Job<MendRequest, never, Mending> = mend;
