/** Seeded numbers in [0, 1): the same seed, the same boards (mulberry32, T. Ettinger, public domain). */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A normal deviate (G. E. P. Box, M. E. Muller, "A Note on the Generation of Random Normal Deviates", 1958). */
export const normalDeviate = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** The same things in an order drawn by lot (R. A. Fisher, F. Yates, 1938). */
export function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const all = [...list];
  for (let k = all.length - 1; k > 0; k--) {
    const other = Math.floor(random() * (k + 1));
    [all[k], all[other]] = [all[other], all[k]];
  }
  return all;
}
