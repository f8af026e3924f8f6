import { F64, V128, type Code, type ValueType } from './wasm';

type Operation = 'add' | 'sub' | 'mul' | 'div' | 'neg';

/** What numbers of straight-line code are: two lanes of doubles, or one double. */
export interface Word {
  type: ValueType;
  bytes: number;
  /** Leave a constant on the stack. */
  constant(code: Code, x: number): Code;
  /** From and to memory; the address stands on the stack and is added to `at`. */
  load(code: Code, at: number): Code;
  store(code: Code, at: number): Code;
  op(code: Code, operation: Operation): Code;
}

export const PAIR: Word = {
  type: V128,
  bytes: 16,
  constant: (code, x) => code.pairOf(x),
  load: (code, at) => code.loadPair(at),
  store: (code, at) => code.storePair(at),
  op: (code, operation) => code.pair(operation),
};

export const SINGLE: Word = {
  type: F64,
  bytes: 8,
  constant: (code, x) => code.double(x),
  load: (code, at) => code.loadDouble(at),
  store: (code, at) => code.storeDouble(at),
  op: (code, operation) => code.single(operation),
};
