import { takeOfSweep, type SweepRequest, type SweepTake } from '@/core/bench/sweep-take';
import type { Job } from './job';

/** A take from recordings of a sweep. */
export const sweepTake: Job<SweepRequest, never, SweepTake> = takeOfSweep;
