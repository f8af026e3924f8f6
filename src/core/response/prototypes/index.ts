import { ReedError } from '@/core/errors';
import { butterworth, linkwitzRiley } from './butterworth';
import { chebyshev, elliptic, inverseChebyshev } from './chebyshev';
import { bessel, criticallyDamped, equalRipplePhase, gaussian, optimumL } from './delay-shapes';
import { withEdge, type Edge } from './edge';
import type { Prototype } from './prototype';

export { EDGES, lastCrossing, type Edge } from './edge';
export * from './prototype';

export const SHAPES = [
  'butterworth',
  'chebyshev',
  'inverse-chebyshev',
  'elliptic',
  'bessel',
  'linkwitz-riley',
  'optimum-l',
  'gaussian',
  'equal-ripple-phase',
  'critically-damped',
] as const;
export type Shape = (typeof SHAPES)[number];

export interface ShapeOptions {
  shape: Shape;
  order: number;
  /** Default: -3 dB; for a Linkwitz-Riley shape -6 dB, where its two halves cross. */
  edge?: Edge;
  /** Pass-band ripple of Chebyshev and elliptic shapes, dB. Default 0.5 dB. */
  rippleDb?: number;
  /** Stop-band attenuation of inverse Chebyshev and elliptic shapes, dB. Default 40 dB. */
  stopbandDb?: number;
  /** Phase ripple of the equal-ripple phase shape, degrees. Default 0.05. */
  rippleDegrees?: number;
}

export const DEFAULT_RIPPLE_DB = 0.5;
export const DEFAULT_STOPBAND_DB = 40;

/** Shapes whose pass band ripples, and shapes whose stop band comes back up. */
export const ripplesInPassBand = (shape: Shape) => shape === 'chebyshev' || shape === 'elliptic';
export const returnsInStopBand = (shape: Shape) =>
  shape === 'inverse-chebyshev' || shape === 'elliptic';

/** Whether a shape has the edge that is asked for. */
export const hasEdge = (shape: Shape, edge: Edge) =>
  edge !== 'ripple' || ripplesInPassBand(shape) || shape === 'inverse-chebyshev';

/**
 * Low-pass prototype with its edge at 1 rad/s in the asked convention. Levels are relative to the
 * top of the pass band (for an even-order rippled shape the crests, not the d.c. level).
 *
 * @throws ReedError `design` for an order, ripple or stop band outside what the shape is defined for
 */
export function lowPassPrototype(options: ShapeOptions): Prototype {
  const { shape, order } = options;
  const edge = options.edge ?? (shape === 'linkwitz-riley' ? 'half-voltage' : 'half-power');
  if (!Number.isInteger(order) || order < 1 || order > 10)
    throw refuse(`Order ${order} is out of reach: ask for a whole order from 1 to 10.`);
  if (!hasEdge(shape, edge))
    throw refuse(
      `Only a rippled shape has a ripple edge: use the -3 dB edge with the ${shape} shape.`,
    );
  return withEdge(natural(options), edge);
}

/** A shape as its own definition scales it. */
function natural({ shape, order, ...options }: ShapeOptions): Prototype {
  const rippleDb = options.rippleDb ?? DEFAULT_RIPPLE_DB;
  const stopbandDb = options.stopbandDb ?? DEFAULT_STOPBAND_DB;
  if (ripplesInPassBand(shape) && (!(rippleDb > 0) || rippleDb > 12))
    throw refuse(
      `A ripple of ${rippleDb} dB is out of reach: ask for more than 0 and at most 12 dB.`,
    );
  if (returnsInStopBand(shape) && (!(stopbandDb >= 6) || stopbandDb > 160))
    throw refuse(`A stop band of ${stopbandDb} dB is out of reach: ask for 6 dB to 160 dB.`);
  switch (shape) {
    case 'butterworth':
      return butterworth(order);
    case 'chebyshev':
      return chebyshev(order, rippleDb);
    case 'inverse-chebyshev':
      return inverseChebyshev(order, stopbandDb);
    case 'elliptic':
      if (stopbandDb < rippleDb + 3)
        throw refuse(
          `A stop band of ${stopbandDb} dB is no deeper than the ripple of ${rippleDb} dB: ask for at least ${rippleDb + 3} dB.`,
        );
      return elliptic(order, rippleDb, stopbandDb);
    case 'bessel':
      return bessel(order);
    case 'linkwitz-riley':
      if (order % 2 === 1 || order > 8)
        throw refuse(
          `A Linkwitz-Riley shape is two equal filters in a row: ask for order 2, 4, 6 or 8, not ${order}.`,
        );
      return linkwitzRiley(order);
    case 'optimum-l':
      return optimumL(order);
    case 'gaussian':
      return gaussian(order);
    case 'equal-ripple-phase': {
      const degrees = options.rippleDegrees ?? 0.05;
      if (!(degrees >= 0.001 && degrees <= 2))
        throw refuse(`A phase ripple of ${degrees}° is out of reach: ask for 0.001° to 2°.`);
      return equalRipplePhase(order, degrees);
    }
    case 'critically-damped':
      return criticallyDamped(order);
  }
}

const refuse = (why: string) => new ReedError('design', why);
