import { ReedError } from '@/core/errors';
import { findZero } from '@/core/numeric/root';
import {
  delayAtDc,
  orderOf,
  prototypeMagnitude,
  scaleFrequency,
  type Prototype,
} from './prototype';

export const EDGES = ['half-power', 'ripple', 'half-voltage', 'asymptote', 'unit-delay'] as const;
/**
 * What happens at the edge frequency: -3.01 dB; leaving the ripple (for an inverse Chebyshev shape:
 * reaching the stop-band level); -6.02 dB; the asymptotes meeting; or the edge in rad/s being one
 * over the delay at d.c.
 */
export type Edge = (typeof EDGES)[number];

/** The last frequency at which |H| is `target`, from the pass band outwards (before the first zero). */
export function lastCrossing(prototype: Prototype, target: number): number {
  const first = Math.min(Infinity, ...prototype.zeros);
  let high = Math.max(...prototype.sections.map((s) => s.w0));
  if (Number.isFinite(first)) high = first;
  else while (prototypeMagnitude(prototype, high) > target) high *= 2;
  let low = high;
  while (prototypeMagnitude(prototype, low) <= target && low > high * 1e-12) low *= 0.98;
  return Math.exp(
    findZero(
      (u) => prototypeMagnitude(prototype, Math.exp(u)) - target,
      Math.log(low),
      // A hair further: the crossing may lie at this end itself, on the wrong side of rounding.
      Math.log(Math.min(low / 0.98, high) * (1 + 1e-9)),
      1e-15,
    ),
  );
}

/** A prototype with its edge at 1 rad/s in the asked convention. */
export function withEdge(prototype: Prototype, edge: Edge): Prototype {
  switch (edge) {
    case 'half-power':
      return scaleFrequency(prototype, 1 / lastCrossing(prototype, Math.SQRT1_2));
    case 'half-voltage':
      return scaleFrequency(prototype, 1 / lastCrossing(prototype, 0.5));
    case 'unit-delay':
      return scaleFrequency(prototype, delayAtDc(prototype));
    case 'ripple':
      return prototype; // the shapes that have such an edge are built with it at 1 rad/s
    case 'asymptote': {
      const order = orderOf(prototype);
      const fall = order - 2 * prototype.zeros.length;
      if (fall === 0)
        throw new ReedError(
          'design',
          'This shape levels off in its stop band, so it has no falling asymptote: use the -3 dB edge.',
        );
      // Far out |H| tends to dcGain prod(w0^m) / prod(z^2) / w^fall; it crosses 1 at w = that root.
      const poles = prototype.sections.reduce(
        (p, s) => p * (s.q === undefined ? s.w0 : s.w0 ** 2),
        prototype.dcGain,
      );
      const far = prototype.zeros.reduce((p, z) => p / z ** 2, poles);
      return scaleFrequency(prototype, far ** (-1 / fall));
    }
  }
}
