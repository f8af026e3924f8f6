import { TWO_PI, type StageAsk, type StageFigures } from './topology';
import type { Why } from './why';

/*
 * A shelf is one zero and one pole; half its height in dB lies at their geometric mean f0, and the
 * ratio of the two is its height G. With `tau` for time constants:
 *
 *   (1 + s tauZero) / (1 + s tauPole)
 */

/** Figures of gain (1 + s tauZero)/(1 + s tauPole): below, the gain is `low`; above, low tauZero/tauPole. */
export function shelfFigures(
  kind: 'low-shelf' | 'high-shelf',
  low: number,
  tauZero: number,
  tauPole: number,
): StageFigures {
  const f0Hz = 1 / (TWO_PI * Math.sqrt(tauZero * tauPole));
  const rise = tauZero / tauPole;
  return kind === 'high-shelf'
    ? { f0Hz, gain: low, boost: rise }
    : { f0Hz, gain: low * rise, boost: 1 / rise };
}

/** Time constants for an ask. */
export function shelfTimes(kind: 'low-shelf' | 'high-shelf', ask: StageAsk) {
  const rise = kind === 'high-shelf' ? ask.boost! : 1 / ask.boost!;
  const middle = 1 / (TWO_PI * ask.f0Hz);
  return { tauZero: middle * Math.sqrt(rise), tauPole: middle / Math.sqrt(rise) };
}

/** What f0 of a shelf means, from its two time constants written in TeX. */
export const shelfWhy = (zero: string, pole: string): Why => ({
  of: 'f0',
  formula: `\\frac{1}{2\\pi\\sqrt{${zero}\\cdot ${pole}}}`,
  text: 'Half the height in dB: the geometric mean of the two break points.',
  rule: 'Rule of thumb: the break points are where the curve bends by 3 dB. Exact only for shelves higher than about 20 dB; for lower ones they lie closer in.',
});
