import type { NextStep } from './next-step';

/** What a reading says of one of the possibilities that it was to tell apart. */
export interface Answered {
  /** None where all was to be ordinary. */
  parts: readonly string[];
  /** Of the possibilities, all thought as likely beforehand: how likely the reading leaves it. */
  share: number;
  /** How far the reading lies from what this one says, in standard deviations. */
  away: number;
}

/** A reading that lies farther from everything that was expected fits none of it. */
const FITS = 4;

/**
 * What the measurement that was asked for says, once it is done.
 *
 * @param value what was read: dB as the take counts them, ohms, or the value of the part
 * @returns by possibility, the likeliest first; none where the reading fits none of them
 */
export function answered(next: NextStep, value: number): Answered[] {
  const all = awayFrom(next, value).map((away, i) => ({ parts: next.expected[i].parts, away }));
  if (!all.some(({ away }) => Math.abs(away) <= FITS)) return [];
  const weights = all.map(({ away }, i) => Math.exp(-(away ** 2) / 2) / next.expected[i].sd);
  const whole = weights.reduce((a, b) => a + b, 0);
  return all
    .map((one, i) => ({ ...one, share: weights[i] / whole }))
    .sort((a, b) => b.share - a.share);
}

function awayFrom(next: NextStep, value: number): number[] {
  const asPart = (expected: number, sd: number) => Math.log(value / expected) / sd;
  switch (next.kind) {
    case 'level':
      return next.expected.map(({ db, sd }) => (value - db) / sd);
    case 'resistance':
      return next.expected.map(({ ohms, sd }) => asPart(ohms, sd));
    case 'part':
      return next.expected.map(({ value: expected, sd }) => asPart(expected, sd));
  }
}
