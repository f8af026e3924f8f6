import { ReedError } from '@/core/errors';
import {
  capacitorAtLeast,
  startCapacitor,
  type StageAsk,
  type StageChoice,
  type StageFigures,
  type Values,
} from '../topology';

/*
 * The second-order stage with two resistors, two capacitors and positive feedback around an
 * amplifier of gain K (R. P. Sallen, E. L. Key, "A Practical Method of Designing RC Active
 * Filters", IRE Trans. Circuit Theory CT-2, 1955).
 *
 * Low-pass (R1, R2 in the signal path, C1 fed back, C2 to ground):
 *   H(s) = K / (s^2 R1 R2 C1 C2 + s (R1 C2 + R2 C2 + R1 C1 (1 - K)) + 1)
 * High-pass (C1, C2 in the signal path, R1 fed back, R2 to ground):
 *   H(s) = K s^2 / (s^2 + s (1/(R2 C1) + 1/(R2 C2) + (1 - K)/(R1 C1)) + 1/(R1 R2 C1 C2))
 */

/** Gain of the amplifier: 1 + RF/RG, or one without them. */
export function amplifierGain({ RF, RG }: Values): number {
  return RF === undefined || RG === undefined ? 1 : 1 + RF / RG;
}

export function lowPassFigures(values: Values): StageFigures {
  const { R1, R2, C1, C2 } = values;
  const gain = amplifierGain(values);
  const root = Math.sqrt(R1 * R2 * C1 * C2);
  return {
    f0Hz: 1 / (2 * Math.PI * root),
    q: root / (R1 * C2 + R2 * C2 + R1 * C1 * (1 - gain)),
    gain,
  };
}

export function highPassFigures(values: Values): StageFigures {
  const { R1, R2, C1, C2 } = values;
  const gain = amplifierGain(values);
  const root = Math.sqrt(R1 * R2 * C1 * C2);
  const damping = 1 / (R2 * C1) + 1 / (R2 * C2) + (1 - gain) / (R1 * C1);
  return { f0Hz: 1 / (2 * Math.PI * root), q: 1 / (root * damping), gain };
}

/**
 * Low-pass values for f0, Q and amplifier gain K.
 *
 * With m = C1/C2 and r = sqrt(R1/R2) the damping reads  (1 + m (1-K)) r^2 - sqrt(m)/Q r + 1 = 0,
 * which has a real root when m (1/Q^2 + 4 (K-1)) >= 4. Equal capacitors are kept where that holds,
 * otherwise C1 is the next common value above the bound. Of two roots the one with more nearly
 * equal resistors is taken.
 *
 * @throws ReedError `design` when the chosen capacitor leaves no positive resistors
 */
export function lowPassValues(ask: StageAsk, gain: number, choice?: StageChoice): Values {
  const q = ask.q!;
  const C2 = startCapacitor(ask.f0Hz, choice);
  const least = 4 / (1 / q ** 2 + 4 * (gain - 1));
  const C1 = least <= 1 ? C2 : capacitorAtLeast(least * C2);
  const m = C1 / C2;
  const r = positiveRoot(1 + m * (1 - gain), -Math.sqrt(m) / q, 1);
  if (r === undefined) {
    throw new ReedError(
      'design',
      `Q = ${q.toPrecision(4)} needs C1 of at least ${least.toPrecision(4)} times C2: choose a larger C1 or a lower Q.`,
    );
  }
  const root = 1 / (2 * Math.PI * ask.f0Hz * Math.sqrt(C1 * C2)); // sqrt(R1 R2)
  return { R1: root * r, R2: root / r, C1, C2 };
}

/**
 * High-pass values with equal capacitors: with r = sqrt(R2/R1) the damping reads
 * (K-1) r^2 + r/Q - 2 = 0, which always has one positive root.
 */
export function highPassValues(ask: StageAsk, gain: number, choice?: StageChoice): Values {
  const q = ask.q!;
  const C1 = startCapacitor(ask.f0Hz, choice);
  const r = positiveRoot(gain - 1, 1 / q, -2)!;
  const root = 1 / (2 * Math.PI * ask.f0Hz * C1);
  return { R1: root / r, R2: root * r, C1, C2: C1 };
}

/** The positive root of a r^2 + b r + c nearest to one (of a pair r and 1/r the greater), without cancellation. */
export function positiveRoot(a: number, b: number, c: number): number | undefined {
  if (Math.abs(a) < 1e-14) return -c / b > 0 ? -c / b : undefined;
  const discriminant = b * b - 4 * a * c;
  if (discriminant < 0) return discriminant > -1e-12 * b * b ? -b / (2 * a) : undefined;
  const t = -(b + (b >= 0 ? 1 : -1) * Math.sqrt(discriminant)) / 2;
  const roots = [t / a, c / t].filter((r) => r > 0 && Number.isFinite(r));
  const away = (r: number) => Math.abs(Math.log(r)) - (r > 1 ? 1e-6 : 0);
  return roots.sort((x, y) => away(x) - away(y))[0];
}
