import { seriesOffers } from '@/core/fit/offers';

/** A fixed resistor and a trimmer in series that reach a value. */
export interface FixedAndTrimmer {
  fixed: number;
  trimmer: number;
  /** Where the trimmer then stands, 0 to 1 of its travel. */
  turn: number;
}

/** The trimmer spans at least this part of the value, either way of it together. */
const LEAST_SPAN = 0.15;
const SPAN = 30;

/** A resistor and the smallest usual trimmer that bring a value near the middle of its travel. */
export function fixedAndTrimmer(ohms: number): FixedAndTrimmer | undefined {
  const trimmers = seriesOffers('E3', ohms * LEAST_SPAN, ohms * SPAN).map((o) => o.value);
  const fixed = seriesOffers('E12', ohms / SPAN, ohms).map((o) => o.value);
  const [trimmer] = trimmers;
  if (trimmer === undefined) return undefined;
  const reached = fixed
    .map((value) => ({ fixed: value, trimmer, turn: (ohms - value) / trimmer }))
    .filter(({ turn }) => turn >= 0 && turn <= 1)
    .sort((a, b) => Math.abs(a.turn - 0.5) - Math.abs(b.turn - 0.5));
  return reached[0];
}
