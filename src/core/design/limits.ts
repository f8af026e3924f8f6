import { ReedError } from '@/core/errors';
import {
  lastCrossing,
  lowPassPrototype,
  prototypeMagnitude,
  ripplesInPassBand,
  returnsInStopBand,
  scaleFrequency,
  type Prototype,
} from '@/core/response/prototypes';
import type { Ask, AskKind, Limits } from './ask';

const amplitude = (db: number) => 10 ** (-db / 20);

/** How far out the stop edge lies on the prototype, whose pass edge is at 1. */
export function selectivity(kind: AskKind, limits: Limits): number {
  if ('passHz' in limits)
    return kind === 'low-pass' ? limits.stopHz / limits.passHz : limits.passHz / limits.stopHz;
  const { passLowerHz: pl, passUpperHz: pu, stopLowerHz: sl, stopUpperHz: su } = limits;
  // The geometric transforms, for the worse of the two sides.
  const away = (f: number) => Math.abs(f - (pl * pu) / f) / (pu - pl);
  return kind === 'band-pass' ? Math.min(away(sl), away(su)) : 1 / Math.max(away(sl), away(su));
}

/** The prototype scaled so that it is `passDb` down at 1. */
export function prototypeForLimits(ask: Ask, order: number): Prototype {
  const { passDb, stopDb } = ask.limits!;
  const natural = lowPassPrototype({
    shape: ask.shape,
    order,
    rippleDb: ask.rippleDb ?? (ripplesInPassBand(ask.shape) ? passDb : undefined),
    stopbandDb: ask.stopbandDb ?? (returnsInStopBand(ask.shape) ? stopDb : undefined),
  });
  return scaleFrequency(natural, 1 / lastCrossing(natural, amplitude(passDb)));
}

/**
 * The least order whose level is at most `passDb` down over the pass band and at least `stopDb`
 * down beyond the stop edge.
 *
 * @throws ReedError `design` when ten are not enough, saying what ten reach
 */
export function leastOrder(ask: Ask): { order: number; prototype: Prototype; note: string } {
  const limits = ask.limits!;
  const out = selectivity(ask.kind, limits);
  if (!(out > 1 + 1e-9))
    throw new ReedError(
      'design',
      `The stop edge must lie outside the pass band of the ${ask.kind}: move the stop or the pass frequencies apart.`,
    );
  if (limits.stopDb <= limits.passDb)
    throw new ReedError(
      'design',
      `The stop band of ${limits.stopDb} dB must lie below the pass band’s ${limits.passDb} dB.`,
    );
  let reached = 0;
  for (let order = 1; order <= 10; order++) {
    if (ask.shape === 'linkwitz-riley' && (order % 2 === 1 || order > 8)) continue;
    const prototype = prototypeForLimits(ask, order);
    reached = -20 * Math.log10(prototypeMagnitude(prototype, out));
    const stopsAt = lastCrossing(prototype, amplitude(limits.stopDb));
    if (stopsAt <= out * (1 + 1e-9)) {
      return {
        order,
        prototype,
        note: `Order ${order} is the least that meets the limits: ${reached.toFixed(1)} dB down at the stop edge, ${limits.stopDb} dB asked.`,
      };
    }
  }
  throw new ReedError(
    'design',
    `No ${ask.shape} shape up to order 10 meets these limits: order 10 is ${reached.toFixed(1)} dB down at the stop edge and ${limits.stopDb} dB was asked. Take a steeper shape, or more room between pass and stop.`,
  );
}

/** The prototype of a given order through the pass edge, and what it reaches at the stop edge. */
export function givenOrder(ask: Ask, order: number): { prototype: Prototype; note: string } {
  const prototype = prototypeForLimits(ask, order);
  const reached =
    -20 * Math.log10(prototypeMagnitude(prototype, selectivity(ask.kind, ask.limits!)));
  const met = reached >= ask.limits!.stopDb ? 'meets' : 'misses';
  return {
    prototype,
    note: `Order ${order} ${met} the limits: ${reached.toFixed(1)} dB down at the stop edge, ${ask.limits!.stopDb} dB asked.`,
  };
}
