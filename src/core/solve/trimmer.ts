import { seriesOffers, USUAL_TRIMMERS, withTrimmer } from '@/core/fit/offers';

/** A fixed resistor and a trimmer in series that reach a value. */
export interface FixedAndTrimmer {
  fixed: number;
  trimmer: number;
  /** Where the trimmer then stands, 0 to 1 of its travel. */
  turn: number;
}

/** The fixed part is looked for down to this part of a value. */
const LEAST = 1 / 30;

/** A resistor and the smallest usual trimmer that bring a value near the middle of its travel. */
export function fixedAndTrimmer(ohms: number): FixedAndTrimmer | undefined {
  const found = withTrimmer(seriesOffers('E12', ohms * LEAST, ohms), USUAL_TRIMMERS, ohms);
  if (!found) return undefined;
  const [fixed, trimmer] = found.made.of;
  return { fixed, trimmer, turn: (ohms - fixed) / trimmer };
}
