import { besselJ1 } from '../bessel';
import { MU0, type Winding } from './coil';
import { legendre } from './legendre';

/** How far the integral goes, in units of one over the thickness of the winding. */
const REACH = 40;
const RADII = 16;
const PANEL = 8;

/**
 * Inductance of a round coil whose winding fills a rectangle with even density:
 * L = 2 pi mu0 j^2 int_0^oo P(k)^2 (k l - 1 + exp(-k l))/k^2 dk, P(k) = int r J1(k r) dr over the
 * winding, j turns a square metre (from the field of a loop as an integral over Bessel functions,
 * J. D. Jackson, "Classical Electrodynamics", problem 5.10). Beyond where it is cut, P^2 is
 * (R1 + R2)/(pi k^3) in the mean.
 *
 * @returns henries
 */
export function selfInductance({
  innerMetres,
  outerMetres,
  lengthMetres: l,
  turns,
}: Winding): number {
  const [r1, r2] = [innerMetres / 2, outerMetres / 2];
  const thick = r2 - r1;
  const density = turns / (thick * l);
  const end = REACH / thick;
  const panels = Math.ceil((end * r2) / 4);
  const nodes = legendre(PANEL);
  const radii = legendre(RADII);
  // Long and slender coils are settled at small k: panels grow evenly in the root of k.
  let sum = 0;
  for (let p = 0; p < panels; p++) {
    const from = end * (p / panels) ** 2;
    const half = (end * ((p + 1) / panels) ** 2 - from) / 2;
    for (let i = 0; i < PANEL; i++) {
      const k = from + half * (1 + nodes.at[i]);
      let moment = 0;
      for (let j = 0; j < RADII; j++) {
        const r = r1 + (thick / 2) * (1 + radii.at[j]);
        moment += radii.weight[j] * r * besselJ1(k * r);
      }
      moment *= thick / 2;
      sum += half * nodes.weight[i] * moment * moment * lengthwise(k * l) * l * l;
    }
  }
  const tail = ((r1 + r2) / Math.PI) * (l / (3 * end ** 3) - 1 / (4 * end ** 4));
  return 2 * Math.PI * MU0 * density * density * (sum + tail);
}

/** (x - 1 + exp(-x))/x^2. */
const lengthwise = (x: number): number =>
  x < 1e-3 ? 0.5 - x / 6 + (x * x) / 24 : (x - 1 + Math.exp(-x)) / (x * x);
