const { abs, exp, max, min } = Math;

/*
 * Gauss's rule of 7 points inside Kronrod's of 15: abscissae, and weights of both (R. Piessens et
 * al., "QUADPACK", 1983, routine QK15). The odd ones are Gauss's.
 */
const NODES = [
  0.9914553711208126, 0.9491079123427585, 0.8648644233597691, 0.7415311855993944,
  0.5860872354676911, 0.4058451513773972, 0.20778495500789848, 0,
];
const KRONROD = [
  0.02293532201052922, 0.06309209262997856, 0.10479001032225019, 0.14065325971552592,
  0.1690047266392679, 0.19035057806478542, 0.20443294007529889, 0.20948214108472782,
];
const GAUSS = [0.1294849661688697, 0.27970539148927664, 0.3818300505051189, 0.4179591836734694];
const POINTS = 15;

/** The 15 abscissae in rising order, with their weights. */
const RULE = Array.from({ length: POINTS }, (_, k) => {
  const [at, sign] = k < 8 ? [k, -1] : [14 - k, 1];
  return {
    x: sign * NODES[at],
    kronrod: KRONROD[at],
    gauss: at % 2 === 1 ? GAUSS[(at - 1) / 2] : 0,
  };
});

/** Intervals a decade to begin with. */
const PER_DECADE = 2;
/** A band is cut into at most so many: enough for dozens of resonances with Q of millions. */
const MOST_INTERVALS = 20_000;

export interface Band {
  fromHz: number;
  toHz: number;
}

/** Several quantities integrated over a piece of the log axis, the first of which steers. */
interface Piece {
  from: number;
  to: number;
  sums: Float64Array;
  error: number;
}

/**
 * Integrate over a band of frequencies several quantities at once, by Gauss and Kronrod on a log
 * axis: pieces whose two rules differ are halved until what they differ by adds up to less than
 * `settled` of the first total. A resonance is closed in on from its skirts, however sharp it is.
 *
 * @param sample for rising frequencies the quantities at each: `[quantity][frequency]`, per hertz
 * @returns the integrals, by quantity
 */
export function integrateBand(
  { fromHz, toHz }: Band,
  settled: number,
  sample: (frequenciesHz: Float64Array) => Float64Array[],
): Float64Array {
  const [low, high] = [Math.log(fromHz), Math.log(toHz)];
  const count = max(2, Math.ceil(((high - low) / Math.LN10) * PER_DECADE));
  const edge = (k: number) => low + ((high - low) * k) / count;
  const spans = Array.from({ length: count }, (_, k): [number, number] => [edge(k), edge(k + 1)]);
  let pieces = measured(spans, sample);
  for (;;) {
    const total = pieces.reduce((sum, p) => sum + p.sums[0], 0);
    const error = pieces.reduce((sum, p) => sum + p.error, 0);
    if (!(error > settled * total) || pieces.length > MOST_INTERVALS) break;
    // Every piece with more than its share, and at least the worst.
    const share = min(
      (settled * total) / pieces.length,
      pieces.reduce((most, p) => max(most, p.error), 0),
    );
    const halves = (p: Piece): [number, number][] => {
      const middle = (p.from + p.to) / 2;
      return p.error >= share && middle > p.from && middle < p.to
        ? [
            [p.from, middle],
            [middle, p.to],
          ]
        : [];
    };
    const cut = pieces.flatMap(halves);
    if (cut.length === 0) break;
    pieces = [...pieces.filter((p) => halves(p).length === 0), ...measured(cut, sample)];
  }
  const sums = new Float64Array(pieces[0].sums.length);
  for (const piece of pieces) piece.sums.forEach((x, q) => (sums[q] += x));
  return sums;
}

/** Both rules over some pieces, all their frequencies asked for at once. */
function measured(
  spans: readonly (readonly [number, number])[],
  sample: (frequenciesHz: Float64Array) => Float64Array[],
): Piece[] {
  const frequenciesHz = new Float64Array(spans.length * POINTS);
  spans.forEach(([from, to], i) =>
    RULE.forEach(
      ({ x }, k) => (frequenciesHz[i * POINTS + k] = exp((from + to + (to - from) * x) / 2)),
    ),
  );
  const values = sample(frequenciesHz);
  return spans.map(([from, to], i) => {
    const half = (to - from) / 2;
    const sums = new Float64Array(values.length);
    let gauss = 0;
    RULE.forEach(({ kronrod, gauss: g }, k) => {
      const at = i * POINTS + k;
      // d f = f d ln f
      const width = half * frequenciesHz[at];
      for (let q = 0; q < values.length; q++) sums[q] += values[q][at] * width * kronrod;
      gauss += values[0][at] * width * g;
    });
    // What the fifteen points miss, by experience with what seven do (QUADPACK's estimate).
    const apart = abs(sums[0] - gauss);
    const relative = sums[0] > 0 ? (200 * apart) / sums[0] : 0;
    return { from, to, sums, error: apart > 0 ? sums[0] * min(1, relative ** 1.5) : 0 };
  });
}
