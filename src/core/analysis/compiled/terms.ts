import { V128, type Code } from './wasm';

/**
 * A real number in straight-line code for two lanes. Numbers that do not change from frequency to
 * frequency are worked out once for a board and stand in memory; each may be taken times a power of
 * omega. What is left depends on frequency in some other way and stands in a local.
 */
export type Term =
  | { kind: 'zero' }
  /** Plus or minus one, by what the parts write: never found by comparing numbers. */
  | { kind: 'one'; negative: boolean }
  | { kind: 'board'; at: number; power: number; negative: boolean }
  | { kind: 'local'; index: number; negative: boolean };

type Steady = Exclude<Term, { kind: 'local' }>;

export const ZERO: Term = { kind: 'zero' };
export const ONE: Term = { kind: 'one', negative: false };

/** Plus or minus a times b. */
export interface SignedProduct {
  negative: boolean;
  a: Term;
  b: Term;
}

/** Bytes of two doubles. */
export const PAIR_BYTES = 16;

/** Writes arithmetic on terms: what it can once a board into `fold`, the rest into `loop`. */
export class Algebra {
  private readonly powers = new Map<number, number>();
  /** Locals that hold a board's number times a power of omega. */
  private readonly scaled = new Map<string, number>();

  /**
   * @param omega local of `loop` that holds the two frequencies
   * @param allocate room for two doubles in memory
   */
  constructor(
    readonly fold: Code,
    readonly loop: Code,
    private readonly omega: number,
    private readonly allocate: () => number,
  ) {}

  /** A number that JavaScript writes for each board. */
  board(at: number, power = 0): Term {
    return { kind: 'board', at, power, negative: false };
  }

  /** base plus products. */
  sum(base: Term, products: readonly SignedProduct[]): Term {
    const steady: Steady[] = base.kind === 'zero' || base.kind === 'local' ? [] : [base];
    const rest: SignedProduct[] = [];
    for (const { negative, a, b } of products) {
      if (a.kind === 'zero' || b.kind === 'zero') continue;
      if (a.kind === 'local' || b.kind === 'local') rest.push({ negative, a, b });
      else steady.push(signed(this.foldProduct(a, b), negative));
    }
    const folded = this.foldSums(steady);
    if (rest.length === 0 && base.kind !== 'local' && folded.length <= 1) return folded[0] ?? ZERO;
    if (rest.length === 0 && base.kind === 'local' && folded.length === 0) return base;
    return this.loopSum(base, folded, rest);
  }

  product(a: Term, b: Term): Term {
    return this.sum(ZERO, [{ negative: false, a, b }]);
  }

  /** 1 / x. */
  reciprocal(x: Term): Term {
    if (x.kind === 'one') return x;
    if (x.kind === 'board') {
      const at = this.allocate();
      this.fold.number(0).pairOf(1).number(0).loadPair(x.at).pair('div').storePair(at);
      return { ...x, at, power: -x.power };
    }
    this.loop.pairOf(1);
    this.push(x);
    this.loop.pair('div');
    return this.local();
  }

  negative(x: Term): Term {
    return signed(x, true);
  }

  /** Leave the value of a term on the stack of `loop`. */
  push(x: Term): void {
    const { loop } = this;
    switch (x.kind) {
      case 'zero':
        loop.pairOf(0);
        return;
      case 'one':
        loop.pairOf(x.negative ? -1 : 1);
        return;
      case 'local':
        loop.get(x.index);
        if (x.negative) loop.pair('neg');
        return;
      case 'board':
        this.pushScaled(x.at, x.power);
        if (x.negative) loop.pair('neg');
    }
  }

  /** A local of the value on the stack of `loop`. */
  local(): Term {
    const index = this.loop.local(V128);
    this.loop.set(index);
    return { kind: 'local', index, negative: false };
  }

  private pushScaled(at: number, power: number): void {
    const { loop } = this;
    if (power === 0) {
      loop.number(0).loadPair(at);
      return;
    }
    const key = `${at} ${power}`;
    const known = this.scaled.get(key);
    if (known !== undefined) {
      loop.get(known);
      return;
    }
    const index = loop.local(V128);
    this.scaled.set(key, index);
    this.pushPower(power);
    loop.number(0).loadPair(at).pair('mul').tee(index);
  }

  /** omega^power; each power is worked out where it is first wanted. */
  pushPower(power: number): void {
    const { loop } = this;
    if (power === 1) {
      loop.get(this.omega);
      return;
    }
    const known = this.powers.get(power);
    if (known !== undefined) {
      loop.get(known);
      return;
    }
    const index = loop.local(V128);
    this.powers.set(power, index);
    if (power < 0) {
      loop.pairOf(1);
      this.pushPower(-power);
      loop.pair('div');
    } else if (power === 0) loop.pairOf(1);
    else {
      this.pushPower(power - 1);
      loop.get(this.omega).pair('mul');
    }
    loop.tee(index);
  }

  private foldProduct(a: Steady, b: Steady): Steady {
    if (a.kind === 'zero' || b.kind === 'zero') return { kind: 'zero' };
    const negative = a.negative !== b.negative;
    if (a.kind === 'one') return { ...b, negative };
    if (b.kind === 'one') return { ...a, negative };
    const at = this.allocate();
    this.fold.number(0);
    this.fold.number(0).loadPair(a.at).number(0).loadPair(b.at).pair('mul').storePair(at);
    return { kind: 'board', at, power: a.power + b.power, negative };
  }

  /** One term for each power of omega among some. */
  private foldSums(steady: readonly Steady[]): Steady[] {
    const byPower = new Map<number, Exclude<Steady, { kind: 'zero' }>[]>();
    for (const term of steady) {
      if (term.kind === 'zero') continue;
      const power = term.kind === 'one' ? 0 : term.power;
      byPower.set(power, [...(byPower.get(power) ?? []), term]);
    }
    return [...byPower].map(([power, terms]) => {
      if (terms.length === 1) return terms[0];
      const at = this.allocate();
      const { fold } = this;
      fold.number(0);
      terms.forEach((term, i) => {
        if (term.kind === 'one') fold.pairOf(1);
        else fold.number(0).loadPair(term.at);
        if (i === 0) {
          if (term.negative) fold.pair('neg');
        } else fold.pair(term.negative ? 'sub' : 'add');
      });
      fold.storePair(at);
      return { kind: 'board', at, power, negative: false } as const;
    });
  }

  private loopSum(base: Term, folded: readonly Steady[], rest: readonly SignedProduct[]): Term {
    const parts: { negative: boolean; push: () => void }[] = [];
    const one = (term: Term): void => {
      if (term.kind !== 'zero')
        parts.push({ negative: term.negative, push: () => this.push(bare(term)) });
    };
    if (base.kind === 'local') one(base);
    folded.forEach(one);
    for (const { negative, a, b } of rest) {
      const minus = [a, b].filter((x) => x.kind !== 'zero' && x.negative).length;
      parts.push({
        negative: negative !== (minus === 1),
        push: () => this.pushProduct(bare(a), bare(b)),
      });
    }
    // A sum that begins with a plus saves a change of sign; one of nothing but minuses is taken as one.
    const negative = parts.every((part) => part.negative);
    parts.sort((p, q) => Number(p.negative) - Number(q.negative));
    parts.forEach((part, i) => {
      part.push();
      if (i > 0) this.loop.pair(part.negative !== negative ? 'sub' : 'add');
    });
    return signed(this.local(), negative);
  }

  private pushProduct(a: Term, b: Term): void {
    if (a.kind === 'one') this.push(b);
    else if (b.kind === 'one') this.push(a);
    else {
      this.push(a);
      this.push(b);
      this.loop.pair('mul');
    }
  }
}

/** x, or -x. */
const signed = <T extends Term>(x: T, negative: boolean): T =>
  x.kind === 'zero' || !negative ? x : { ...x, negative: !x.negative };

const bare = <T extends Term>(x: T): T => (x.kind === 'zero' ? x : { ...x, negative: false });
