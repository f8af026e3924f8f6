import type { Arithmetic } from '@/core/circuit/laws/law';
import { V128, type Code, type PairOp } from './wasm';

/** Two numbers side by side: a local, something in memory, or the same constant in both lanes. */
export type Lanes = { local: number } | { at: number } | { constant: number };

/** 1.5 x 2^52: added to a number of modest size, it leaves it rounded in the lowest bits. */
const ROUNDS = 1.5 * 2 ** 52;
/** ln 2 in two parts; the first times a whole number of eleven bits is exact. */
const LN2_HIGH = 6.9314718036912381649e-1;
const LN2_LOW = 1.90821492927058770002e-10;
/** exp underflows below. */
const LEAST = -700;
/** tanh is one to the last digit beyond. */
const STEERED_OVER = 20;

/** 1/2!, 1/3!, ... 1/12!: for |r| <= ln(2)/2 what is left out is below 2e-16 of exp(r). */
const EXP_TERMS: number[] = [];
for (let n = 2, f = 1 / 2; n <= 12; n++, f /= n) EXP_TERMS.push(f);

/** 1/3, 1/5, ... 1/19: of ln((1 + s) / (1 - s)) / (2 s) - 1 = s^2/3 + s^4/5 + ... for |s| < 0.172. */
const LOG_TERMS = Array.from({ length: 9 }, (_, k) => 1 / (2 * k + 3));

/** Writes the arithmetic of a law for two like devices side by side, as straight-line code. */
export class LaneArithmetic implements Arithmetic<Lanes> {
  constructor(private readonly code: Code) {}

  number = (constant: number): Lanes => ({ constant });
  add = (a: Lanes, b: Lanes): Lanes => this.op('add', a, b);
  sub = (a: Lanes, b: Lanes): Lanes => this.op('sub', a, b);
  mul = (a: Lanes, b: Lanes): Lanes => this.op('mul', a, b);
  div = (a: Lanes, b: Lanes): Lanes => this.op('div', a, b);
  min = (a: Lanes, b: Lanes): Lanes => this.op('pmin', a, b);
  max = (a: Lanes, b: Lanes): Lanes => this.op('pmax', a, b);
  neg = (a: Lanes): Lanes => this.op('neg', a);
  abs = (a: Lanes): Lanes => this.op('abs', a);
  sqrt = (a: Lanes): Lanes => this.op('sqrt', a);

  /** Leave a value on the stack. */
  push(x: Lanes): void {
    if ('local' in x) this.code.get(x.local);
    else if ('at' in x) this.code.number(0).loadPair(x.at);
    else this.code.pairOf(x.constant);
  }

  /** A local of the pair on the stack. */
  local(): Lanes {
    const local = this.code.local(V128);
    this.code.set(local);
    return { local };
  }

  /**
   * exp(x) - 1 = 2^n (exp(r) - 1) + (2^n - 1) with x = n ln 2 + r (J.-M. Muller, "Elementary
   * Functions", chapter 11).
   */
  expm1(x: Lanes): Lanes {
    const { power, rest } = this.powerOf(x);
    return this.add(this.mul(power, rest), this.sub(power, this.number(1)));
  }

  exp(x: Lanes): Lanes {
    const { power, rest } = this.powerOf(x);
    return this.add(this.mul(power, rest), power);
  }

  /** 2^n, and exp(r) - 1. */
  private powerOf(x: Lanes): { power: Lanes; rest: Lanes } {
    const within = this.max(x, this.number(LEAST));
    const rounded = this.add(this.mul(within, this.number(Math.LOG2E)), this.number(ROUNDS));
    const n = this.sub(rounded, this.number(ROUNDS));
    const coarse = this.sub(within, this.mul(n, this.number(LN2_HIGH)));
    const r = this.sub(coarse, this.mul(n, this.number(LN2_LOW)));
    const square = this.mul(r, r);
    const rest = this.add(r, this.mul(square, this.polynomial(EXP_TERMS, r, square)));
    // The lowest bits of `rounded` are n: they become the exponent of 2^n.
    this.push(rounded);
    this.code.shift('up', 52).pairOfBits(0x3ff00000, 0).pair('addWhole');
    return { power: this.local(), rest };
  }

  /** ln(2^e m) = e ln 2 + ln m, with m within a factor of sqrt 2 of one. */
  log(x: Lanes): Lanes {
    const { code } = this;
    this.push(x);
    code.shift('down', 52).pairOfBits(0x43300000, 0).pair('or');
    const biased = this.local();
    this.push(x);
    code.pairOfBits(0x000fffff, -1).pair('and').pairOfBits(0x3ff00000, 0).pair('or');
    const mantissa = this.local();
    const e = this.sub(biased, this.number(2 ** 52 + 1023));
    const limit = this.number(Math.SQRT2);
    const exponent = this.ifAbove(mantissa, limit, this.add(e, this.number(1)), e);
    const half = this.mul(mantissa, this.number(0.5));
    const m = this.ifAbove(mantissa, limit, half, mantissa);
    const one = this.number(1);
    const s = this.div(this.sub(m, one), this.add(m, one));
    const square = this.mul(s, s);
    const twice = this.add(s, s);
    const series = this.mul(square, this.polynomial(LOG_TERMS, square, this.mul(square, square)));
    const low = this.add(this.mul(twice, series), this.mul(exponent, this.number(LN2_LOW)));
    return this.add(this.mul(exponent, this.number(LN2_HIGH)), this.add(twice, low));
  }

  tanh(x: Lanes): Lanes {
    const far = this.number(STEERED_OVER);
    const within = this.max(this.min(x, far), this.neg(far));
    const excess = this.expm1(this.add(within, within));
    return this.div(excess, this.add(excess, this.number(2)));
  }

  ifAbove(a: Lanes, b: Lanes, then: Lanes, otherwise: Lanes): Lanes {
    for (const x of [then, otherwise, a, b]) this.push(x);
    this.code.pair('above').pair('select');
    return this.local();
  }

  /** Terms in pairs, so that few have to wait for one another (G. Estrin, 1960). */
  private polynomial(terms: readonly number[], x: Lanes, square: Lanes): Lanes {
    let level: Lanes[] = terms.map((term) => this.number(term));
    for (let power = x; level.length > 1; power = power === x ? square : this.mul(power, power)) {
      const next: Lanes[] = [];
      for (let k = 0; k < level.length; k += 2)
        next.push(
          k + 1 < level.length ? this.add(level[k], this.mul(level[k + 1], power)) : level[k],
        );
      level = next;
    }
    return level[0];
  }

  private op(op: PairOp, ...operands: readonly Lanes[]): Lanes {
    for (const x of operands) this.push(x);
    this.code.pair(op);
    return this.local();
  }
}
