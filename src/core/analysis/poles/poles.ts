import { long } from '@/core/numeric/double-double';
import { ReedError, messageOf } from '@/core/errors';
import type { Circuit } from '@/core/circuit/schema';
import { AcAnalysis } from '../ac/ac';
import type { ExactSlot } from '../linear/exact-matrix';
import { multiplicityOf, rootsOf, type Root } from './roots';

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
const ON_AXIS = 1e-12;

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
  const poles = rootsOf(size, slots);
  if (!poles) throw undetermined(analysis);
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
  const lean = poles.map((p) => p.re / (Math.hypot(p.re, p.im) || 1));
  const atZero = poles.some(({ re, im }) => re === 0 && im === 0) ? pathless(analysis) : undefined;
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

const EMPTY = { g: long(0), c: long(0), mostG: 1, mostC: 0 };

/** What a frequency that means nothing to anybody says of equations without a solution. */
function undetermined(analysis: AcAnalysis): ReedError {
  try {
    analysis.solveCarefully(2 * Math.PI * 997.13);
  } catch (error) {
    if (error instanceof ReedError)
      return new ReedError(error.code, error.message.replace(/ at 997[^:,]*/, ''), error.place);
    throw error;
  }
  return new ReedError(
    'singular',
    'The circuit leaves a voltage or a current undetermined at every frequency: check the feedback around its op-amps.',
  );
}

/** What has no definite value at rest. */
function pathless(analysis: AcAnalysis): string {
  try {
    analysis.solveCarefully(0);
    return 'Something in the circuit keeps what it was given at rest.';
  } catch (error) {
    return messageOf(error).replace(/ at 0 Hz/, ' at rest');
  }
}

/** f0 and Q of each pair; real roots alone; what counts more than once, once with its number. */
function figuresOf(roots: readonly Root[]): RootFigures[] {
  const list: RootFigures[] = [];
  for (const root of roots) {
    if (root.im < 0 || list.some((figures) => figures.roots[0] === root)) continue;
    const size = Math.hypot(root.re, root.im);
    const multiplicity = multiplicityOf(root, roots);
    const known = list.find(({ roots: [r] }) => r.re === root.re && r.im === root.im);
    if (known) continue;
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
