import { long } from '@/core/numeric/double-double';
import { ReedError } from '@/core/errors';
import type { Circuit } from '@/core/circuit/schema';
import { AcAnalysis } from '../ac/ac';
import { CarefulSolver } from '../linear/careful';
import type { ExactSlot } from '../linear/exact-matrix';
import { singularError } from '../linear/singular';
import { rootsOf, type Root } from './roots';

export type { Root } from './roots';

/** A real root or a conjugate pair, in the words of a designer. */
export interface RootFigures {
  /** |s| / (2 pi). */
  f0Hz: number;
  /** Quality factor of a pair; null for a real root. */
  q: number | null;
  /** How often it counts. */
  multiplicity: number;
  roots: Root[];
}

export interface PoleResult {
  poles: Root[];
  zeros: Root[];
  poleFigures: RootFigures[];
  zeroFigures: RootFigures[];
  /** "stable": all poles left of the axis; "marginal": some on it; "unstable": some right of it. */
  verdict: 'stable' | 'marginal' | 'unstable';
  /** Why a pole lies at zero: what has no path at rest, and what to do about it. */
  atZero?: string;
}

/** A pole whose real part is this small a part of itself lies on the axis. */
export const ON_AXIS = 1e-12;

/**
 * Poles of a circuit and zeros of the transfer from its sources to a net: the finite generalised
 * eigenvalues of (G, C), and of that pencil bordered by source and probe (J. Vlach, K. Singhal,
 * "Computer Methods for Circuit Analysis and Design", 2nd ed., chapter 7).
 *
 * @throws ReedError `circuit` for an unknown net, `singular` where the circuit leaves something
 * undetermined at every frequency
 */
export function polesAndZeros(circuit: Circuit, probe: string, signal?: AbortSignal): PoleResult {
  const analysis = new AcAnalysis(circuit, signal);
  const unknown = analysis.unknownOf(probe);
  if (unknown < 0)
    throw new ReedError('circuit', `“${probe}” is the ground net: it has no transfer.`, {
      net: probe,
    });
  const { rhs } = analysis;
  const { slots, size } = analysis.exactMatrix();
  const poles = polesOf(analysis);
  const border: ExactSlot[] = [{ ...EMPTY, row: size, column: unknown, g: long(1) }];
  for (let row = 0; row < size; row++) {
    const amplitude = Math.hypot(rhs.re[row], rhs.im[row]);
    if (amplitude > 0)
      border.push({
        ...EMPTY,
        row,
        column: size,
        g: long(-Math.sign(rhs.re[row] || 1) * amplitude),
      });
  }
  // Without a source, or with nothing of it at the probe, there is no transfer that could have zeros.
  const zeros = border.length > 1 ? (rootsOf(size + 1, [...slots, ...border]) ?? []) : [];
  const lean = poles.map(growth);
  const atZero = poles.some(({ re, im }) => re === 0 && im === 0)
    ? (undetermined(analysis, 0, ' at rest')?.message ??
      'Something in the circuit keeps what it was given at rest.')
    : undefined;
  return {
    poles,
    zeros,
    poleFigures: figuresOf(poles),
    zeroFigures: figuresOf(zeros),
    verdict: lean.some((x) => x > ON_AXIS)
      ? 'unstable'
      : lean.some((x) => x >= -ON_AXIS)
        ? 'marginal'
        : 'stable',
    ...(atZero ? { atZero } : {}),
  };
}

/**
 * The poles alone, of a circuit as it stands.
 *
 * @throws ReedError `singular` as above
 */
export function polesOf(analysis: AcAnalysis): Root[] {
  const { slots, size } = analysis.exactMatrix();
  const poles = rootsOf(size, slots);
  if (poles) return poles;
  // A frequency that means nothing to any circuit: what is undetermined there is so at all others.
  throw (
    undetermined(analysis, 2 * Math.PI * 997.13, '') ??
    new ReedError(
      'singular',
      'The circuit leaves a voltage or a current undetermined at every frequency: check the feedback around its op-amps.',
    )
  );
}

/** How far a pole leans to the right, from -1 to 1: minus its damping ratio; above nought it grows. */
export const growth = ({ re, im }: Root): number => re / (Math.hypot(re, im) || 1);

const EMPTY = { g: long(0), c: long(0), mostG: 1, mostC: 0 };

/** What the equations leave undetermined at a frequency; undefined where they do not. */
function undetermined(analysis: AcAnalysis, omega: number, where: string): ReedError | undefined {
  const x = new CarefulSolver(analysis.exactMatrix()).solve(omega, analysis.rhs);
  return 'unknown' in x ? singularError(analysis.system, x.unknown, x.equation, where) : undefined;
}

/** f0 and Q of each pair; real roots alone; what counts more than once, once with its number. */
export function figuresOf(roots: readonly Root[]): RootFigures[] {
  const list: RootFigures[] = [];
  for (const root of roots) {
    const same = roots.filter(({ re, im }) => re === root.re && im === root.im);
    if (root.im < 0 || same[0] !== root || list.some((known) => known.roots[0] === root)) continue;
    const size = Math.hypot(root.re, root.im);
    const multiplicity = same.length;
    const f0Hz = size / (2 * Math.PI);
    if (root.im === 0) list.push({ f0Hz, q: null, multiplicity, roots: [root] });
    else
      list.push({
        f0Hz,
        q: root.re === 0 ? Infinity : -size / (2 * root.re),
        multiplicity,
        roots: [root, { re: root.re, im: -root.im }],
      });
  }
  return list;
}
