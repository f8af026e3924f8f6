import type { Candidate } from '@/core/weigh/candidates';
import { weighOne, type WeighOptions, type WeighRefusal, type WeighRow } from '@/core/weigh/weigh';
import type { Job } from './job';

/** Candidates one after the other, each handed over as it is ready; the result is their number. */
export const weigh: Job<
  { candidates: readonly Candidate[]; options: WeighOptions },
  WeighRow | WeighRefusal,
  number
> = async ({ candidates, options }, { pause, progress }) => {
  for (const candidate of candidates) {
    progress(weighOne(candidate, options));
    await pause();
  }
  return candidates.length;
};
