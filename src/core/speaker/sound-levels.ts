import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { levelsDb } from '@/core/response/response';
import { REFERENCE_PASCALS } from './air';

/** Levels of a trace of pressures, dB re 20 uPa. */
export const soundLevels = ({ re, im }: ComplexTrace): Float64Array =>
  levelsDb({ re: re.map((x) => x / REFERENCE_PASCALS), im: im.map((x) => x / REFERENCE_PASCALS) });
