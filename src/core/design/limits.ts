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
import { findPeak } from '@/core/numeric/root';
import type { Ask, AskKind, Limits } from './ask';

/** Equal ripples meet their own limit to this. */
const ROUNDING_DB = 1e-7;

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

/**
 * The prototype scaled so that it is `passDb` down at 1. Ripple and stop band are those of the
 * limits, or tighter where the ask wishes so: never laxer, or the limits could not be met.
 */
export function prototypeForLimits(ask: Ask, order: number): Prototype {
  const { passDb, stopDb } = ask.limits!;
  const { shape } = ask;
  const rippleDb = ripplesInPassBand(shape) ? Math.min(ask.rippleDb ?? passDb, passDb) : undefined;
  const stopbandDb = Math.max(ask.stopbandDb ?? stopDb, stopDb, 6, (rippleDb ?? 0) + 3);
  const natural = lowPassPrototype({
    shape,
    order,
    rippleDb,
    stopbandDb: returnsInStopBand(shape) ? stopbandDb : undefined,
    rippleDegrees: ask.rippleDegrees,
  });
  return scaleFrequency(natural, 1 / lastCrossing(natural, amplitude(passDb)));
}

/** The least attenuation anywhere from `out` outwards, dB: there, or on a lobe behind it. */
export function attenuationBeyond(prototype: Prototype, out: number): number {
  const level = (w: number) => prototypeMagnitude(prototype, w);
  const zeros = prototype.zeros.filter((z) => z > out).sort((a, b) => a - b);
  const ends = [...new Set(zeros), Math.max(out, ...prototype.zeros) * 1e6];
  const lobes = ends.slice(1).map((end, k) => {
    const [from, to] = [Math.log(ends[k]), Math.log(end)];
    return level(Math.exp(findPeak((u) => level(Math.exp(u)), from, to, 1e-9)));
  });
  const worst = Math.max(level(out), level(ends[ends.length - 1]), ...lobes);
  return -20 * Math.log10(worst);
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
    reached = attenuationBeyond(prototype, out);
    if (reached >= limits.stopDb - ROUNDING_DB) {
      return {
        order,
        prototype,
        note: `Order ${order} is the least that meets the limits: ${printed(reached)} dB down from the stop edge on, ${limits.stopDb} dB asked.`,
      };
    }
  }
  throw new ReedError(
    'design',
    `No ${ask.shape} shape up to order 10 meets these limits: order 10 is ${printed(reached)} dB down from the stop edge on and ${limits.stopDb} dB was asked. Take a steeper shape, or more room between pass and stop.`,
  );
}

/** The prototype of a given order through the pass edge, and what it reaches from the stop edge on. */
export function givenOrder(ask: Ask, order: number): { prototype: Prototype; note: string } {
  const prototype = prototypeForLimits(ask, order);
  const reached = attenuationBeyond(prototype, selectivity(ask.kind, ask.limits!));
  return { prototype, note: limitsNote(`Order ${order}`, reached, ask.limits!.stopDb) };
}

/** Whether what is reached from the stop edge on is what was asked, in words. */
export function limitsNote(what: string, reachedDb: number, stopDb: number): string {
  const met = reachedDb >= stopDb - ROUNDING_DB ? 'meets' : 'misses';
  return `${what} ${met} the limits: ${printed(reachedDb)} dB down from the stop edge on, ${stopDb} dB asked.`;
}

/** Rounded down, so that what misses by a hair does not read as if it met. */
const printed = (db: number) => (Math.floor(db * 10 + 1e-6) / 10).toFixed(1);
