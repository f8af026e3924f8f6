/** A place where a response may bend sharply: a pole or zero at `hz`, about `hz / q` wide. */
export interface Landmark {
  hz: number;
  q: number;
}

export interface Band {
  fromHz: number;
  toHz: number;
}

/** `count` frequencies from one to another, spread evenly on the log axis, both ends exact. */
export function spaced(fromHz: number, toHz: number, count: number): Float64Array {
  const x = Float64Array.from(
    { length: count },
    (_, k) => fromHz * (toHz / fromHz) ** (k / (count - 1)),
  );
  x[0] = fromHz;
  x[count - 1] = toHz;
  return x;
}

/** Nothing is looked for closer to a landmark than this part of its width. */
const CLOSEST = 0.12;
const WIDENING = 1.7;

/**
 * Frequencies over a band, evenly spread and closing in on every landmark, so that no resonance or
 * notch lies between two of them unseen. Both ends are among them.
 *
 * @param perDecade of the even spread
 */
export function explored(
  { fromHz, toHz }: Band,
  landmarks: readonly Landmark[],
  perDecade = 16,
): Float64Array {
  const count = Math.max(9, Math.ceil(perDecade * Math.log10(toHz / fromHz)) + 1);
  const even = spaced(fromHz, toHz, count);
  const coarse = Math.log(toHz / fromHz) / (count - 1);
  const close: number[] = [];
  for (const { hz, q } of landmarks) {
    // A wide bend is seen by the even spread.
    if (!(hz > 0) || !Number.isFinite(hz) || !(Math.abs(q) * coarse > 0.3)) continue;
    close.push(hz);
    // A pole on the axis has no width; what is seen of it from afar is enough.
    const width = Math.max(1 / Math.abs(q), 1e-4);
    for (let away = CLOSEST * width; away < coarse; away *= WIDENING)
      close.push(hz * Math.exp(away), hz * Math.exp(-away));
  }
  const inside = close.filter((hz) => hz > fromHz && hz < toHz);
  if (inside.length === 0) return even;
  return mergedGrid(even, inside);
}

/** The frequencies of both in rising order, without those that stand on each other; the last stays. */
export function mergedGrid(a: Float64Array, b: Iterable<number>): Float64Array {
  const all = Float64Array.from([...a, ...b]).sort();
  const last = all[all.length - 1];
  return all.filter((hz, k) => k === 0 || hz > all[k - 1] * (1 + 1e-9) || hz === last);
}
