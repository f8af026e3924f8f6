import { rendered, type RenderedRequest } from '@/core/listen/rendered';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** Slices between two reports of how far it is. */
const REPORT = 64;

/** A program through the solved circuit as volts, sample by sample; its steps say which part is done. */
export const renderProgram: Job<RenderedRequest & { sheet: Sheet }, number, Float32Array> = async (
  { sheet, ...request },
  { pause, progress },
) => {
  const work = rendered(sheet, request);
  for (let k = 0; ; k++) {
    const { done, value } = work.next();
    if (done) return value;
    if (k % REPORT !== 0) continue;
    progress(value);
    await pause();
  }
};
