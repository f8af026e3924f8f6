/*
 * A small writer of WebAssembly modules: only what straight-line arithmetic and its loops need
 * (WebAssembly Core Specification 2.0, chapter 5, "Binary Format").
 */

/** Types of values, by their codes. */
export const I32 = 0x7f;
export const F64 = 0x7c;
export const V128 = 0x7b;
export type ValueType = typeof I32 | typeof F64 | typeof V128;

/** Instructions on pairs of doubles; each follows the prefix 0xfd. */
const PAIR = {
  abs: 0xec,
  neg: 0xed,
  sqrt: 0xef,
  add: 0xf0,
  sub: 0xf1,
  mul: 0xf2,
  div: 0xf3,
  /** Where either is no number, the first is kept. */
  pmin: 0xf6,
  pmax: 0xf7,
  /** All ones where the first is above the second, or at most as large; nothing where either is no number. */
  above: 0x4a,
  atMost: 0x4b,
  /** Of two values, by the bits of a third. */
  select: 0x52,
  and: 0x4e,
  or: 0x50,
  /** Lanes as whole numbers of 64 bits. */
  addWhole: 0xce,
  splat: 0x14,
};
export type PairOp = keyof typeof PAIR;

/** Instructions on one double. */
const SINGLE = {
  abs: 0x99,
  neg: 0x9a,
  add: 0xa0,
  sub: 0xa1,
  mul: 0xa2,
  div: 0xa3,
  /** Gives 1 or 0. */
  atMost: 0x65,
};
export type SingleOp = keyof typeof SINGLE;

/** Instructions on whole numbers. */
const WHOLE = { add: 0x6a, sub: 0x6b, and: 0x71, below: 0x49, isZero: 0x45 };
export type WholeOp = keyof typeof WHOLE;

/** Bytes of an unsigned whole number in LEB128. */
function unsigned(n: number): number[] {
  const bytes: number[] = [];
  do {
    const low = n % 128;
    n = Math.floor(n / 128);
    bytes.push(n > 0 ? low + 128 : low);
  } while (n > 0);
  return bytes;
}

function signed(n: number): number[] {
  const bytes: number[] = [];
  for (;;) {
    const low = n & 0x7f;
    n >>= 7;
    const done = (n === 0 && (low & 0x40) === 0) || (n === -1 && (low & 0x40) !== 0);
    bytes.push(done ? low : low | 0x80);
    if (done) return bytes;
  }
}

const double = new DataView(new ArrayBuffer(8));
function doubleBytes(x: number): number[] {
  double.setFloat64(0, x, true);
  return Array.from({ length: 8 }, (_, i) => double.getUint8(i));
}

/** The body of one function. */
export class Code {
  private readonly bytes: number[] = [];

  constructor(
    private readonly parameters: readonly ValueType[],
    private readonly locals: ValueType[] = [],
  ) {}

  /** Another stretch of the same function: it has the same locals, and is put where it belongs later. */
  stretch(): Code {
    return new Code(this.parameters, this.locals);
  }

  /** Put a stretch here. */
  append(stretch: Code): this {
    for (const byte of stretch.bytes) this.bytes.push(byte);
    return this;
  }

  /** A further local; returns its index. */
  local(type: ValueType): number {
    return this.parameters.length + this.locals.push(type) - 1;
  }

  get(index: number): this {
    return this.put(0x20, ...unsigned(index));
  }

  set(index: number): this {
    return this.put(0x21, ...unsigned(index));
  }

  tee(index: number): this {
    return this.put(0x22, ...unsigned(index));
  }

  number(n: number): this {
    return this.put(0x41, ...signed(n));
  }

  /** The same double in both lanes. */
  pairOf(x: number): this {
    return this.put(0xfd, 0x0c, ...doubleBytes(x), ...doubleBytes(x));
  }

  pair(op: PairOp): this {
    return this.put(0xfd, ...unsigned(PAIR[op]));
  }

  /** The same 64 bits in both lanes, given as two halves. */
  pairOfBits(high: number, low: number): this {
    const bytes = [low, high].flatMap((half) => [0, 8, 16, 24].map((by) => (half >>> by) & 255));
    return this.put(0xfd, 0x0c, ...bytes, ...bytes);
  }

  /** One lane of the pair on the stack. */
  lane(lane: 0 | 1): this {
    return this.put(0xfd, 0x21, lane);
  }

  /** The pair below with its second lane replaced by the double on the stack. */
  secondLane(): this {
    return this.put(0xfd, 0x22, 1);
  }

  /** 1 where neither lane is all zeros, as of a comparison that holds in both. */
  both(): this {
    return this.put(0xfd, ...unsigned(0xc3));
  }

  /** Both lanes as whole numbers of 64 bits, moved by so many bits. */
  shift(way: 'up' | 'down', bits: number): this {
    return this.number(bits).put(0xfd, ...unsigned(way === 'up' ? 0xcb : 0xcd));
  }

  double(x: number): this {
    return this.put(0x44, ...doubleBytes(x));
  }

  single(op: SingleOp): this {
    return this.put(SINGLE[op]);
  }

  /** Load a double from the address on the stack plus an offset. */
  loadDouble(offset: number): this {
    return this.put(0x2b, 3, ...unsigned(offset));
  }

  /** Store a double; below it on the stack stands the address. */
  storeDouble(offset: number): this {
    return this.put(0x39, 3, ...unsigned(offset));
  }

  loadWhole(offset: number): this {
    return this.put(0x28, 2, ...unsigned(offset));
  }

  storeWhole(offset: number): this {
    return this.put(0x36, 2, ...unsigned(offset));
  }

  whole(op: WholeOp): this {
    return this.put(WHOLE[op]);
  }

  /** Load two doubles from the address on the stack plus an offset. */
  loadPair(offset: number): this {
    return this.put(0xfd, 0x00, 3, ...unsigned(offset));
  }

  /** Store two doubles; below them on the stack stands the address. */
  storePair(offset: number): this {
    return this.put(0xfd, 0x0b, 3, ...unsigned(offset));
  }

  block(): this {
    return this.put(0x02, 0x40);
  }

  loop(): this {
    return this.put(0x03, 0x40);
  }

  /** What follows until `end` is done where the whole number on the stack is not zero. */
  when(): this {
    return this.put(0x04, 0x40);
  }

  /** Out of as many blocks, or back to the beginning of a loop. */
  branch(depth: number): this {
    return this.put(0x0c, ...unsigned(depth));
  }

  branchIf(depth: number): this {
    return this.put(0x0d, ...unsigned(depth));
  }

  end(): this {
    return this.put(0x0b);
  }

  private put(...bytes: readonly number[]): this {
    for (const byte of bytes) this.bytes.push(byte);
    return this;
  }

  /** Locals in runs of one type, then the instructions. */
  body(): number[] {
    const runs: [count: number, type: ValueType][] = [];
    for (const type of this.locals) {
      const last = runs[runs.length - 1];
      if (last?.[1] === type) last[0]++;
      else runs.push([1, type]);
    }
    const declared = runs.flatMap(([count, type]) => [...unsigned(count), type]);
    const size = unsigned(runs.length).length + declared.length + this.bytes.length + 1;
    const body = unsigned(size);
    for (const part of [unsigned(runs.length), declared, this.bytes, [0x0b]])
      for (const byte of part) body.push(byte);
    return body;
  }
}

/** A function of a module, exported under its name; it gives nothing back. */
export interface WasmFunction {
  name: string;
  parameters: readonly ValueType[];
  code: Code;
}

/** A module of some functions over one memory, imported as `env.memory`. */
export function moduleOf(functions: readonly WasmFunction[]): Uint8Array<ArrayBuffer> {
  const name = (text: string) => [
    ...unsigned(text.length),
    ...[...text].map((c) => c.charCodeAt(0)),
  ];
  const list = (items: number[][]): number[] => {
    const all = unsigned(items.length);
    for (const item of items) for (const byte of item) all.push(byte);
    return all;
  };
  const types = functions.map(({ parameters }) => [0x60, ...list(parameters.map((t) => [t])), 0]);
  const exported = functions.map((f, i) => [...name(f.name), 0x00, ...unsigned(i)]);
  const sections: [id: number, content: number[]][] = [
    [1, list(types)],
    [2, list([[...name('env'), ...name('memory'), 0x02, 0x00, 0x01]])],
    [3, list(functions.map((_, i) => unsigned(i)))],
    [7, list(exported)],
    [10, list(functions.map(({ code }) => code.body()))],
  ];
  const bytes = [0x00, 0x61, 0x73, 0x6d, 0x01, 0x00, 0x00, 0x00];
  for (const [id, content] of sections) {
    bytes.push(id, ...unsigned(content.length));
    for (const byte of content) bytes.push(byte);
  }
  return Uint8Array.from(bytes);
}

/** A compiled module; undefined where WebAssembly is missing or may not be used. */
export function compiled(bytes: Uint8Array<ArrayBuffer>): WebAssembly.Module | undefined {
  try {
    return new WebAssembly.Module(bytes);
  } catch {
    return undefined;
  }
}
