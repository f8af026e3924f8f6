import { ReedError } from '@/core/errors';
import { MU0, type Coil, type Vector } from './coil';
import { elliptic } from './elliptic';
import { legendre } from './legendre';
import { selfInductance } from './self';

/** What two coils share. */
export interface Coupled {
  henries: [number, number];
  /** Negative where a rising current in one would push the other’s the other way. */
  mutualHenries: number;
  k: number;
}

/**
 * Inductances of two coils and what they share.
 *
 * @throws ReedError `range` where the coils lie in each other
 */
export function coupled(a: Coil, b: Coil): Coupled {
  const henries: [number, number] = [selfInductance(a), selfInductance(b)];
  const mutualHenries = mutualInductance(a, b);
  return { henries, mutualHenries, k: couplingOf(henries[0], henries[1], mutualHenries) };
}

/** @throws ReedError `range` where no two coils can share so much */
export function couplingOf(first: number, second: number, mutual: number): number {
  const k = mutual / Math.sqrt(first * second);
  if (Math.abs(k) < 1) return k;
  throw new ReedError('range', 'The two coils lie in each other: move them apart.');
}

/** Loops that a winding is taken for, each way: where the coils are near to each other, and farther off. */
const NEAR = 4;
const FAR = 3;
/** Places around a loop. */
const AROUND = 32;

/**
 * What two coils share, however they lie: each winding is taken for loops at the places of a Gauss
 * rule; the field of a loop of the first is its vector potential in elliptic integrals
 * (J. D. Jackson, "Classical Electrodynamics", 5.37), and its integral along a loop of the second is
 * the flux through it.
 *
 * @param loops each way that a winding is taken for; by their distance where nothing is said
 * @returns henries
 */
export function mutualInductance(a: Coil, b: Coil, loops?: number): number {
  const offset = [0, 1, 2].map((i) => b.centreMetres[i] - a.centreMetres[i]);
  const far = Math.hypot(...offset);
  const reach =
    (Math.hypot(a.outerMetres, a.lengthMetres) + Math.hypot(b.outerMetres, b.lengthMetres)) / 2;
  const n = loops ?? (far < 1.6 * reach ? NEAR : FAR);
  // The first coil lies at the origin, its axis along z.
  const frame = frameOf(a.axis);
  const seen = (v: readonly number[]): Vector => [
    dot(frame[0], v),
    dot(frame[1], v),
    dot(frame[2], v),
  ];
  const centre = seen(offset);
  const [across, along, axis] = frameOf(seen(b.axis));
  let sum = 0;
  for (const one of loopsOf(a, n))
    for (const other of loopsOf(b, n)) {
      let flux = 0;
      for (let k = 0; k < AROUND; k++) {
        const angle = (2 * Math.PI * k) / AROUND;
        const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
        const place = (i: number) =>
          centre[i] + other.z * axis[i] + other.radius * (cos * across[i] + sin * along[i]);
        const [x, y, z] = [place(0), place(1), place(2)];
        const rho = Math.hypot(x, y);
        if (rho === 0) continue;
        // The potential goes round the z axis, the loop along its own tangent.
        const turn =
          (-y * (cos * along[0] - sin * across[0]) + x * (cos * along[1] - sin * across[1])) / rho;
        flux += potential(one.radius, rho, z - one.z) * turn;
      }
      sum += one.turns * other.turns * ((2 * Math.PI * other.radius) / AROUND) * flux;
    }
  return sum;
}

interface Loop {
  radius: number;
  z: number;
  turns: number;
}

/** Loops that stand for a winding. */
function loopsOf({ innerMetres, outerMetres, lengthMetres, turns }: Coil, n: number): Loop[] {
  const { at, weight } = legendre(n);
  return at.flatMap((r, i) =>
    at.map((z, j) => ({
      radius: (innerMetres + outerMetres + (outerMetres - innerMetres) * r) / 4,
      z: (lengthMetres * z) / 2,
      turns: (turns * weight[i] * weight[j]) / 4,
    })),
  );
}

/** Vector potential around the axis of a loop with one ampere, T m. */
function potential(radius: number, rho: number, z: number): number {
  const m = (4 * radius * rho) / ((radius + rho) ** 2 + z * z);
  if (1 - m < 1e-14)
    throw new ReedError('range', 'The two coils lie in each other: move them apart.');
  // (1 - m/2) K - E, which loses its digits for small m.
  let difference: number;
  if (m < 1e-3) difference = (Math.PI / 32) * m * m * (1 + m * (0.75 + (m * 75) / 128));
  else {
    const { first, second } = elliptic(m);
    difference = (1 - m / 2) * first - second;
  }
  return (MU0 / Math.PI) * Math.sqrt(radius / (rho * m)) * difference;
}

/** Three directions at right angles, the last along a vector. */
function frameOf(v: Vector): [Vector, Vector, Vector] {
  const long = Math.hypot(...v);
  const z: Vector = [v[0] / long, v[1] / long, v[2] / long];
  const help: Vector = Math.abs(z[0]) < 0.6 ? [1, 0, 0] : [0, 1, 0];
  const along = cross(z, help);
  const size = Math.hypot(...along);
  const y: Vector = [along[0] / size, along[1] / size, along[2] / size];
  return [cross(y, z), y, z];
}

const dot = (a: readonly number[], b: readonly number[]) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: readonly number[], b: readonly number[]): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
