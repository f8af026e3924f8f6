/**
 * Arithmetic that a device's law is written in. What a value is depends on who reads the law: two
 * doubles side by side in compiled code, or plain numbers.
 */
export interface Arithmetic<V> {
  number(x: number): V;
  add(a: V, b: V): V;
  sub(a: V, b: V): V;
  mul(a: V, b: V): V;
  div(a: V, b: V): V;
  neg(a: V): V;
  abs(a: V): V;
  sqrt(a: V): V;
  min(a: V, b: V): V;
  max(a: V, b: V): V;
  /** exp(x), and exp(x) - 1, exact where x is small; x at most 700. */
  exp(x: V): V;
  expm1(x: V): V;
  /** Natural logarithm of what is above zero. */
  log(x: V): V;
  tanh(x: V): V;
  /** a > b ? then : otherwise. */
  ifAbove(a: V, b: V, then: V, otherwise: V): V;
}

/** Something that flows from one row of an element to another, with its slopes by the drops. */
export interface Flow<V> {
  /** Rows of the element that it leaves and enters; -1 for ground. */
  from: number;
  to: number;
  /** Current and charge; what is left out is nothing, by structure. */
  current?: V;
  charge?: V;
  /** By drop. */
  conductance?: readonly (V | undefined)[];
  capacitance?: readonly (V | undefined)[];
}

/** A difference of two inputs of an element. */
export interface Drop {
  /** Inputs of the element; -1 for ground. */
  plus: number;
  minus: number;
  /** Over which change the law bends noticeably, in its own unit: Newton's method ends far below it. */
  bend: number;
  /** Furthest move in one pass of Newton's method, for laws that rise as exponentials. */
  most?: number;
}

/**
 * The law of a nonlinear element once more, in a form that can be compiled: what `evaluate` computes
 * by rows and inputs, this writes by flows between rows and drops between inputs.
 */
export interface Law {
  /** Laws of one name are the same code, with other constants. */
  name: string;
  drops: readonly Drop[];
  constants: readonly number[];
  write<V>(a: Arithmetic<V>, drops: readonly V[], constants: readonly V[]): Flow<V>[];
}

/** A sum of some values. */
export const sumOf = <V>(a: Arithmetic<V>, ...values: readonly V[]): V =>
  values.reduce((sum, x) => a.add(sum, x));
