import type { Part } from '@/core/circuit/schema';
import { over, plus, size, type Complex } from '@/core/numeric/complex';
import { leastSquares } from './least-squares';

/** A resonance of what moves, as the terminals see it: a coil, a capacitor and a resistor side by side. */
export interface Resonance {
  hz: number;
  q: number;
  ohms: number;
}

/** A circuit that stands for a measured impedance: voice coil, lossy inductance, and resonances in a row. */
export interface Equivalent {
  reOhms: number;
  leHenries: number;
  lossyInductance: { henries: number; ohms: number };
  resonances: Resonance[];
  /** Largest deviation from the table, as a part of the impedance. */
  worst: number;
}

const POINTS = 160;
const MOST_RESONANCES = 3;
/** A hump that rises above the dip beside it by less than this factor is no resonance. */
const HUMP = 1.12;

/**
 * Fit a circuit to an impedance: Re, Le, an inductance with a resistance across it
 * (J. Vanderkooy, "A Model of Loudspeaker Driver Impedance Incorporating Eddy Currents in the Pole
 * Structure", J. Audio Eng. Soc. 37, 1989, in its simplest form) and a resonance for each hump. The
 * relative error is made least in the sense of squares, in the logarithms of all values.
 *
 * @param at the impedance at a frequency
 * @param phased whether its phase is to be met too: a phase that was not measured is the circuit's
 */
export function equivalentOf(
  [fromHz, toHz]: readonly [number, number],
  at: (hz: number) => Complex,
  phased: boolean,
): Equivalent {
  const hz = Float64Array.from(
    { length: POINTS },
    (_, k) => fromHz * (toHz / fromHz) ** (k / (POINTS - 1)),
  );
  const wanted = Array.from(hz, at);
  const start = guess(hz, wanted, phased);
  const errors = (x: Float64Array) => {
    const model = unpacked(x);
    const residuals = new Float64Array(2 * POINTS);
    for (let k = 0; k < POINTS; k++) {
      const found = equivalentAt(model, hz[k]);
      if (!phased) {
        residuals[2 * k] = Math.log(size(found) / size(wanted[k]));
        continue;
      }
      const ratio = over(found, wanted[k]);
      residuals[2 * k] = ratio.re - 1;
      residuals[2 * k + 1] = ratio.im;
    }
    return residuals;
  };
  const { x } = leastSquares(
    {
      residuals: errors,
      at: (point) => {
        const residuals = errors(point);
        const columns = Array.from(point, (_, i) => {
          const beside = Float64Array.from(point);
          beside[i] += 1e-5;
          return errors(beside).map((e, k) => (e - residuals[k]) / 1e-5);
        });
        return { residuals, columns };
      },
      lower: start.map((v) => v - 7),
      upper: start.map((v) => v + 7),
    },
    start,
  );
  const found = unpacked(x);
  const left = errors(x);
  let worst = 0;
  for (let k = 0; k < POINTS; k++)
    worst = Math.max(worst, Math.hypot(left[2 * k], left[2 * k + 1]));
  return { ...found, worst };
}

/** Values in the order of the search: their logarithms. */
function unpacked(x: Float64Array): Omit<Equivalent, 'worst'> {
  const [reOhms, leHenries, henries, ohms, ...rest] = x.map(Math.exp);
  const resonances: Resonance[] = [];
  for (let i = 0; i < rest.length; i += 3)
    resonances.push({ hz: rest[i], q: rest[i + 1], ohms: rest[i + 2] });
  return { reOhms, leHenries, lossyInductance: { henries, ohms }, resonances };
}

function guess(hz: Float64Array, z: readonly Complex[], phased: boolean): Float64Array {
  const sizes = z.map(size);
  const reOhms = 0.95 * Math.min(...sizes);
  const top = POINTS - 1;
  const reactance = phased ? z[top].im : Math.sqrt(Math.max(0, sizes[top] ** 2 - reOhms ** 2));
  const inductive = Math.max(reactance, 0.05 * sizes[top]) / (2 * Math.PI * hz[top]);
  return Float64Array.from(
    [
      reOhms,
      inductive / 2,
      inductive,
      Math.max(sizes[top], 2 * reOhms),
      ...humpsOf(sizes).flatMap((at) => {
        const ohms = Math.max(0.05 * reOhms, sizes[at] - reOhms);
        // Half the width in between: |Z| = sqrt(Re Zmax), where f0/width = Qm sqrt(Re/Zmax).
        const level = Math.sqrt(reOhms * sizes[at]);
        let [low, high] = [at, at];
        while (low > 0 && sizes[low] > level) low--;
        while (high < top && sizes[high] > level) high++;
        const q = (hz[at] / (hz[high] - hz[low])) * Math.sqrt(sizes[at] / reOhms);
        return [hz[at], Math.min(50, Math.max(0.3, q)), ohms];
      }),
    ],
    Math.log,
  );
}

/** Places of the humps of an impedance, the highest first; not of its rise towards the top. */
function humpsOf(sizes: readonly number[]): number[] {
  const humps: { at: number; rise: number }[] = [];
  for (let k = 1; k < sizes.length - 1; k++) {
    if (sizes[k] < sizes[k - 1] || sizes[k] <= sizes[k + 1]) continue;
    const down = (step: number) => {
      let least = sizes[k];
      for (let i = k; i >= 0 && i < sizes.length && sizes[i] <= sizes[k]; i += step)
        least = Math.min(least, sizes[i]);
      return least;
    };
    const rise = sizes[k] / Math.max(down(-1), down(1));
    if (rise >= HUMP) humps.push({ at: k, rise });
  }
  return humps
    .sort((a, b) => b.rise - a.rise)
    .slice(0, MOST_RESONANCES)
    .map(({ at }) => at);
}

/** Impedance of the circuit at a frequency above zero. */
export function equivalentAt(
  { reOhms, leHenries, lossyInductance, resonances }: Omit<Equivalent, 'worst'>,
  hz: number,
): Complex {
  const w = 2 * Math.PI * hz;
  const { henries, ohms } = lossyInductance;
  let sum = plus(
    { re: reOhms, im: w * leHenries },
    over({ re: 0, im: w * henries * ohms }, { re: ohms, im: w * henries }),
  );
  for (const r of resonances)
    sum = plus(sum, over({ re: r.ohms, im: 0 }, { re: 1, im: r.q * (hz / r.hz - r.hz / hz) }));
  return sum;
}

/** The same in parts of a circuit. @param id every part and inner net carries it in front */
export function equivalentParts(
  { reOhms, leHenries, lossyInductance, resonances }: Equivalent,
  { id, plus: top, minus: end }: { id: string; plus: string; minus: string },
): Part[] {
  const { henries, ohms } = lossyInductance;
  const net = (i: number) => (i === resonances.length ? end : `${id}.moving${i}`);
  return [
    { id: `${id}.re`, kind: 'resistor', a: top, b: `${id}.coil1`, ohms: reOhms },
    { id: `${id}.le`, kind: 'inductor', a: `${id}.coil1`, b: `${id}.coil2`, henries: leHenries },
    { id: `${id}.lossy`, kind: 'inductor', a: `${id}.coil2`, b: net(0), henries },
    { id: `${id}.eddy`, kind: 'resistor', a: `${id}.coil2`, b: net(0), ohms },
    ...resonances.flatMap((r, i): Part[] => {
      const w = 2 * Math.PI * r.hz;
      const [a, b] = [net(i), net(i + 1)];
      return [
        { id: `${id}.loss${i}`, kind: 'resistor', a, b, ohms: r.ohms },
        { id: `${id}.give${i}`, kind: 'inductor', a, b, henries: r.ohms / (w * r.q) },
        { id: `${id}.mass${i}`, kind: 'capacitor', a, b, farads: r.q / (w * r.ohms) },
      ];
    }),
  ];
}
