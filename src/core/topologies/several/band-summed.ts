import {
  multipleFeedbackBandFigures,
  multipleFeedbackBandValues,
} from '../single/multiple-feedback-band-pass';
import { startCapacitor, type StageChoice, type StageFigures, type Values } from '../topology';
import type { Why } from '../why';

/*
 * out = -(R6/R4) (Vin - k B) with B the band-pass of unit gain at its centre and
 * k = (its gain) R4/R5: k = 2 makes an all-pass, k = 1 - d a notch that leaves d.
 */

const SUM = 10_000;

/** @returns f0, Q, gain, and k as `own` */
export function bandSummedFigures(
  values: Values,
): StageFigures & { own: { k: number; H: number } } {
  const band = multipleFeedbackBandFigures(values);
  const k = (-band.gain * values.R4) / values.R5;
  return {
    f0Hz: band.f0Hz,
    q: band.q,
    gain: -values.R6 / values.R4,
    own: { k, H: -band.gain },
  };
}

export function bandSummedValues(
  f0Hz: number,
  q: number,
  gain: number,
  k: number,
  choice?: StageChoice,
): Values {
  const H = Math.min(1, q * q);
  return {
    ...multipleFeedbackBandValues(f0Hz, q, H, startCapacitor(f0Hz / Math.max(1, q / 2), choice)),
    R4: SUM,
    R5: (SUM * H) / k,
    R6: -gain * SUM,
  };
}

export const BAND_SUMMED_WHY: readonly Why[] = [
  {
    of: 'R1',
    formula: '\\frac{@R3 @C2}{@H (@C1 + @C2)}',
    text: 'The band-pass’s input resistor: its gain at the centre.',
  },
  {
    of: 'R2',
    formula: '\\frac{1}{(2\\pi @f0)^2 @R3 @C1 @C2 - \\frac{1}{@R1}}',
    text: 'The tuning part: it moves f0 and leaves the width in hertz alone.',
  },
  {
    of: 'R3',
    formula: '\\frac{@Q (@C1 + @C2)}{2\\pi @f0 @C1 @C2}',
    text: 'Sets the width.',
  },
  { of: 'C1 C2', text: 'Equal capacitors, chosen first.' },
  { of: 'R4', formula: '-\\frac{@R6}{@gain}', text: 'Brings the input to the sum.' },
  {
    of: 'R5',
    formula: '\\frac{@H @R4}{@k}',
    text: 'Brings the band-pass to the sum: how much of the centre is taken away.',
  },
  { of: 'R6', formula: '-@gain @R4', text: 'The sum’s feedback resistor.' },
  {
    of: 'f0',
    formula: '\\frac{1}{2\\pi}\\sqrt{\\frac{\\frac{1}{@R1} + \\frac{1}{@R2}}{@R3 @C1 @C2}}',
    text: 'The band-pass’s centre.',
  },
  { of: 'Q', formula: '2\\pi @f0\\frac{@R3 @C1 @C2}{@C1 + @C2}', text: 'The band-pass’s Q.' },
  { of: 'gain', formula: '-\\frac{@R6}{@R4}', text: 'Far from the centre; the stage inverts.' },
];
