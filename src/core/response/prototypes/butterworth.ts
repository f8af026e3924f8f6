import { pairs, type Prototype } from './prototype';

/** S. Butterworth, "On the Theory of Filter Amplifiers", Wireless Engineer 7, 1930: poles evenly on the unit circle. */
export function butterworth(order: number): Prototype {
  const sections = pairs(order).map((k) => ({
    w0: 1,
    q: 1 / (2 * Math.sin(((2 * k + 1) * Math.PI) / (2 * order))),
  }));
  return {
    sections: order % 2 === 1 ? [{ w0: 1 }, ...sections] : sections,
    zeros: [],
    dcGain: 1,
    touches: new Array<number>(order).fill(0),
  };
}

/**
 * Two Butterworth filters of half the order in a row: 6 dB down where the low-pass and the high-pass
 * cross, and their sum is flat (S. H. Linkwitz, "Active Crossover Networks for Noncoincident
 * Drivers", JAES 24, 1976).
 */
export function linkwitzRiley(order: number): Prototype {
  const half = butterworth(order / 2).sections;
  // Two equal real poles are one pair with Q = 1/2.
  const sections = half.flatMap((s) => (s.q === undefined ? [{ ...s, q: 0.5 }] : [s, s]));
  return { sections, zeros: [], dcGain: 1, touches: new Array<number>(order).fill(0) };
}
