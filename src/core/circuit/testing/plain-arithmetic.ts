import type { Arithmetic } from '../laws/law';

/** A law read with plain numbers. */
export const PLAIN: Arithmetic<number> = {
  number: (x) => x,
  add: (a, b) => a + b,
  sub: (a, b) => a - b,
  mul: (a, b) => a * b,
  div: (a, b) => a / b,
  neg: (a) => -a,
  abs: Math.abs,
  sqrt: Math.sqrt,
  min: Math.min,
  max: Math.max,
  exp: Math.exp,
  expm1: Math.expm1,
  log: Math.log,
  tanh: Math.tanh,
  ifAbove: (a, b, then, otherwise) => (a > b ? then : otherwise),
};
