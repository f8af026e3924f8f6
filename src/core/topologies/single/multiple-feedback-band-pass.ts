import { ReedError } from '@/core/errors';
import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because } from '../why';
import { multipleFeedbackDrawing } from './multiple-feedback-drawing';

/**
 * H = -(s/(R1 C1)) / (s^2 + s (C1+C2)/(R3 C1 C2) + (1/R1 + 1/R2)/(R3 C1 C2))
 * (Schaumann and Van Valkenburg, "Design of Analog Filters", 2001, section 4.5)
 */
export function multipleFeedbackBandFigures({ R1, R2, R3, C1, C2 }: Values): StageFigures {
  const w0 = Math.sqrt((1 / R1 + 1 / R2) / (R3 * C1 * C2));
  return {
    f0Hz: w0 / TWO_PI,
    q: (w0 * R3 * C1 * C2) / (C1 + C2),
    gain: (-R3 * C2) / (R1 * (C1 + C2)),
  };
}

/** Values with equal capacitors: R3 = 2Q/(w0 C), R1 = R3/(2H), and R2 takes the rest. */
export function multipleFeedbackBandValues(f0Hz: number, q: number, H: number, C: number): Values {
  const w0 = TWO_PI * f0Hz;
  const R3 = (2 * q) / (w0 * C);
  const R1 = R3 / (2 * H);
  return { R1, R2: 1 / (w0 * w0 * R3 * C * C - 1 / R1), R3, C1: C, C2: C };
}

export const multipleFeedbackBandPass: Topology = {
  id: 'multiple-feedback-band-pass',
  family: 'multiple-feedback',
  name: 'Multiple-feedback band-pass',
  short: 'band-pass, inverting',
  asWords: 'inverting multiple-feedback stages',
  kind: 'band-pass',
  order: 2,
  opAmps: 1,
  gain: 'inverting',
  limits: { q: [0.5, 20], gain: [-400, -0.01] },
  suits: ({ q = 0 }) => (q >= 1 && q <= 8 ? 2 : 0),
  holds: ({ q = 0, gain = 1 }) => Math.abs(gain) <= 1.9 * q ** 2,
  drawing: multipleFeedbackDrawing({
    input: 'resistor R1',
    series: 'capacitor C2',
    over: 'capacitor C1',
    around: 'resistor R3',
    foot: 'resistor R2',
  }),
  design(ask, choice) {
    const q = ask.q ?? 1;
    const gain = ask.gain ?? -Math.min(1, q * q);
    checkAsk(this, { ...ask, gain });
    if (-gain >= 2 * q * q * 0.999)
      throw new ReedError(
        'design',
        `${this.name}: a gain of ${(-gain).toPrecision(4)} at Q = ${q.toPrecision(4)} leaves R2 negative; it must stay below 2 Q² = ${(2 * q * q).toPrecision(4)}. Ask for less gain or more Q.`,
      );
    return multipleFeedbackBandValues(
      ask.f0Hz,
      q,
      -gain,
      startCapacitor(ask.f0Hz / Math.max(1, q / 2), choice),
    );
  },
  figures: multipleFeedbackBandFigures,
  explain: (values) =>
    because(values, multipleFeedbackBandFigures(values), [
      {
        of: 'R1',
        formula: '-\\frac{@R3 @C2}{@gain (@C1 + @C2)}',
        text: 'The input resistor sets the gain at the centre.',
      },
      {
        of: 'R2',
        formula: '\\frac{1}{(2\\pi @f0)^2 @R3 @C1 @C2 - \\frac{1}{@R1}}',
        text: 'The small resistor to ground is the tuning part: it moves f0 and leaves the width in hertz alone.',
        rule: 'Rule of thumb: for high Q, R2 is R3 over 4Q². Exact: R1 stands beside it.',
      },
      {
        of: 'R3',
        formula: '\\frac{@Q (@C1 + @C2)}{2\\pi @f0 @C1 @C2}',
        text: 'The feedback resistor sets the width.',
      },
      { of: 'C1 C2', text: 'Equal capacitors, chosen first.' },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi}\\sqrt{\\frac{\\frac{1}{@R1} + \\frac{1}{@R2}}{@R3 @C1 @C2}}',
        text: 'The centre: R1 and R2 act in parallel.',
      },
      {
        of: 'Q',
        formula: '2\\pi @f0\\frac{@R3 @C1 @C2}{@C1 + @C2}',
        text: 'Centre over width at half power.',
      },
      {
        of: 'gain',
        formula: '-\\frac{@R3 @C2}{@R1 (@C1 + @C2)}',
        text: 'At the centre; below 2Q².',
      },
    ]),
  about:
    'A differentiator inside an integrator’s loop, around one op-amp. Width, gain and centre are set by three resistors in that order.',
  outputs: 'The op-amp’s output, inverted.',
  tuning:
    'R2 moves the centre at constant width and gain: make it a trimmer. R3 sets the width, R1 the gain.',
  sensitivity: 'f0 by half of each part’s error; Q steady.',
  avoid:
    'The op-amp needs a gain-bandwidth of about 40 Q² f0 to keep the centre within a few per cent: above Q of 10 take two integrators.',
};
