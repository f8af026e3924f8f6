import type { Waveform } from './waveform';

/**
 * A power of one value: `[parameter, power]`.
 *
 * Every linear entry of the circuit equations is a constant times powers of part values
 * (a conductance is `ohms^-1`, a mutual inductance `k h1^0.5 h2^0.5`). Writing it down that way lets
 * tolerances be drawn and sensitivities be taken without asking the device again.
 */
export type Factor = readonly [parameter: number, power: number];

/** What a derived value gains for each unit of an independent one: `[parameter, slope]`. */
export type Slope = readonly [parameter: number, slope: number];

/** A value that follows from others, in their order, and its slopes by each of them. */
export type Law = (own: readonly number[]) => { value: number; slopes: readonly number[] };

/** A constant times powers of values. */
export interface Product {
  scale: number;
  factors: readonly Factor[];
}

/** The number a product comes to for given values, by parameter. */
export function productOf({ scale, factors }: Product, values: ArrayLike<number>): number {
  let value = scale;
  for (const [parameter, power] of factors) {
    const p = values[parameter];
    value *= power === 1 ? p : power === -1 ? 1 / p : p ** power;
  }
  return value;
}

/** Index of an unknown; ground is `GROUND` and stamps on it vanish. */
export const GROUND = -1;

/** What an independent source drives: a right-hand-side row, by +1 or -1. */
export interface SourceTerm {
  part: string;
  row: number;
  sign: number;
  /** Its value at rest, volts or amperes: a parameter, or nothing. */
  dc?: number;
  /** Small-signal amplitude, volts or amperes, and its phase in degrees. */
  acMagnitude: number;
  acDegrees: number;
  waveform?: Waveform;
}

/** What a source gives at rest, without its waveform. */
export const constantOf = ({ dc }: Pick<SourceTerm, 'dc'>, values: ArrayLike<number>): number =>
  dc === undefined ? 0 : values[dc];

/** A noise current of an element, from one of its rows to another (or to ground, -1). */
export interface ElementNoise {
  from: number;
  to: number;
  /** Shot noise 2 q |i| of the current in this row. */
  shotOf?: number;
  /** Shot noise of the element's bias current (both halves of a differential pair). */
  shotOfBias?: true;
  /** Thermal noise of a saturated channel, 4 k T (2/3) gm; gm is the slope of row 0 by this input. */
  thermalOfSlope?: number;
}

/**
 * A device whose currents are not linear in the unknowns.
 * It sees `inputs.length` unknowns and adds a current to each of `rows` (positive: leaving that net).
 */
export interface NonlinearElement {
  part: string;
  /** Unknowns it depends on, and equations it adds to; `GROUND` where grounded. */
  inputs: readonly number[];
  rows: readonly number[];
  noise: readonly ElementNoise[];
  /** Fill `out` for the values `v` (one for each input). No allocation. */
  evaluate(v: Float64Array, out: ElementValues): void;
  /** Pull `v` back towards `previous` so that exponentials stay in reach; true when it did. */
  limit?(v: Float64Array, previous: Float64Array): boolean;
}

/** Currents and charges of a nonlinear element, with their derivatives, row by row (`rows x inputs`). */
export interface ElementValues {
  current: Float64Array;
  conductance: Float64Array;
  charge: Float64Array;
  capacitance: Float64Array;
  /** Present bias current of an element that has one, amperes. */
  bias: number;
}

/** A noise source that belongs to a part: white, with the given density squared, between two rows. */
export interface NoiseTerm {
  part: string;
  /** What makes it: "thermal", "voltage", "current". */
  cause: string;
  /** Equation it drives with +1, and with -1; `GROUND` where grounded. */
  plus: number;
  minus: number;
  /** Density squared, A^2/Hz on a net's equation, V^2/Hz on a branch's. */
  density: Product;
  /** The parameter below whose frequency the density rises as 1/f. */
  corner?: number;
}

/**
 * What the equations are for. A slew limit does not act on small signals: leaving it out of
 * "small-signal" equations keeps an op-amp circuit linear, and quick to solve.
 */
export type StampMode = 'small-signal' | 'large-signal';

/**
 * What a device writes its equations to. The system is  G x + C dx/dt + f(x) + dq(x)/dt = b(t),
 * where x holds net voltages and the branch unknowns that devices ask for.
 */
export interface Stamper {
  readonly mode: StampMode;
  /** The unknown of a net, or `GROUND`. */
  net(name: string): number;
  /** A further unknown of the part being stamped, with its own equation: a current, or an inner net. */
  unknown(label: string): number;
  /** The branch current of another part (for couplings). */
  branchOf(partId: string): number;
  /**
   * Declare an independent value of the part; returns its parameter number.
   *
   * @param name of the field of the part, or of its model, that holds it
   */
  parameter(name: string, value: number): number;
  /** Declare a value that follows by a law from independent ones of the part. */
  derived(name: string, of: readonly number[], law: Law): number;
  /** The parameter another part declared under `name`. */
  parameterOf(partId: string, name: string): number;
  /** G[row, column] += scale * product of factors. */
  resistive(row: number, column: number, scale: number, ...factors: Factor[]): void;
  /** C[row, column] += scale * product of factors. */
  reactive(row: number, column: number, scale: number, ...factors: Factor[]): void;
  /** An independent source on one row. */
  source(term: Omit<SourceTerm, 'part'>): void;
  /** Every number that the element's law holds is declared by `parameters`, under its own name. */
  nonlinear(element: Omit<NonlinearElement, 'part'>): void;
  noise(term: Omit<NoiseTerm, 'part'>): void;
}

/** Declare every number among the constants of a model as a value of its part. */
export function parameters(s: Stamper, model: object): void {
  for (const [name, value] of Object.entries(model) as [string, unknown][])
    if (typeof value === 'number') s.parameter(name, value);
}

/** A two-terminal admittance between `a` and `b`. */
export function admittance(
  s: Stamper,
  kind: 'resistive' | 'reactive',
  a: number,
  b: number,
  ...factors: Factor[]
): void {
  s[kind](a, a, 1, ...factors);
  s[kind](b, b, 1, ...factors);
  s[kind](a, b, -1, ...factors);
  s[kind](b, a, -1, ...factors);
}

/** Let the branch current `i` flow from `a` through the part to `b`, and put v(a) - v(b) into row `i`. */
export function branch(s: Stamper, a: number, b: number, i: number): void {
  s.resistive(a, i, 1);
  s.resistive(b, i, -1);
  s.resistive(i, a, 1);
  s.resistive(i, b, -1);
}
