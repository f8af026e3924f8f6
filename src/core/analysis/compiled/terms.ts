import type { Code } from './wasm';
import type { Word } from './word';

/**
 * A real number in straight-line code. Numbers that only change with the values of the parts are
 * worked out once for a board and stand in memory; each may be taken times a power of omega. What is
 * left stands in a local, which some stretch of the loop works out: its level.
 */
export type Term =
  | { kind: 'zero' }
  /** Plus or minus one, by what the parts write: never found by comparing numbers. */
  | { kind: 'one'; negative: boolean }
  | { kind: 'board'; at: number; power: number; negative: boolean }
  | { kind: 'local'; index: number; level: number; negative: boolean };

type Steady = Exclude<Term, { kind: 'local' }>;

export const ZERO: Term = { kind: 'zero' };
export const ONE: Term & { kind: 'one' } = { kind: 'one', negative: false };

/** Plus or minus a times b. */
export interface SignedProduct {
  negative: boolean;
  a: Term;
  b: Term;
}

/**
 * Writes arithmetic on terms: what it can once a board into `fold`, the rest into the first stretch
 * of `loops` that comes after all it is made of.
 */
export class Algebra {
  /** Nothing is written into a stretch before this one. */
  level = 0;
  private readonly powers = new Map<number, number>();
  /** Locals that hold a board's number times a power of omega. */
  private readonly scaled = new Map<string, number>();

  /**
   * @param loops stretches of one function, one after the other
   * @param allocate room for a word in memory
   * @param omega local that holds the two frequencies, for powers of it; the loop is then one stretch
   */
  constructor(
    readonly word: Word,
    readonly fold: Code,
    readonly loops: readonly Code[],
    readonly allocate: () => number,
    private readonly omega = -1,
  ) {}

  /** A number that JavaScript writes for each board. */
  board(at: number, power = 0): Term & { kind: 'board' } {
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

  /** a / b where both only change with the board: what is equal divides to one. */
  steadyQuotient(a: Steady, b: Steady): Term {
    if (a.kind === 'zero' || b.kind === 'zero') return ZERO;
    const negative = a.negative !== b.negative;
    if (b.kind === 'one') return { ...a, negative };
    const { word, fold } = this;
    const at = this.allocate();
    fold.number(0);
    this.pushSteady({ ...a, negative: false });
    this.pushSteady({ ...b, negative: false });
    word.store(word.op(fold, 'div'), at);
    const power = (a.kind === 'board' ? a.power : 0) - b.power;
    return { kind: 'board', at, power, negative };
  }

  /** 1 / x. */
  reciprocal(x: Term): Term {
    if (x.kind === 'one' || x.kind === 'board') return this.steadyQuotient(ONE, x);
    const level = this.levelOf(x);
    const loop = this.loops[level];
    this.word.constant(loop, 1);
    this.push(x, level);
    this.word.op(loop, 'div');
    return this.local(level);
  }

  /** Where what is made of these is worked out. */
  levelOf(...made: readonly Term[]): number {
    let { level } = this;
    for (const x of made) if (x.kind === 'local') level = Math.max(level, x.level);
    return level;
  }

  negative(x: Term): Term {
    return signed(x, true);
  }

  /** Leave the value of a term on the stack of a stretch. */
  push(x: Term, level = this.levelOf(x)): void {
    const { word } = this;
    const loop = this.loops[level];
    switch (x.kind) {
      case 'zero':
        word.constant(loop, 0);
        return;
      case 'one':
        word.constant(loop, x.negative ? -1 : 1);
        return;
      case 'local':
        loop.get(x.index);
        if (x.negative) word.op(loop, 'neg');
        return;
      case 'board':
        this.pushScaled(loop, x.at, x.power);
        if (x.negative) word.op(loop, 'neg');
    }
  }

  /** Leave a number that no frequency changes on the stack of `fold`. */
  pushSteady(x: Steady): void {
    const { word, fold } = this;
    if (x.kind === 'board') {
      word.load(fold.number(0), x.at);
      if (x.negative) word.op(fold, 'neg');
    } else word.constant(fold, x.kind === 'zero' ? 0 : x.negative ? -1 : 1);
  }

  /** A local of the value on the stack of a stretch. */
  local(level = this.level): Term & { kind: 'local' } {
    const index = this.loops[level].local(this.word.type);
    this.loops[level].set(index);
    return { kind: 'local', index, level, negative: false };
  }

  private pushScaled(loop: Code, at: number, power: number): void {
    const { word } = this;
    if (power === 0) {
      word.load(loop.number(0), at);
      return;
    }
    const key = `${at} ${power}`;
    const known = this.scaled.get(key);
    if (known !== undefined) {
      loop.get(known);
      return;
    }
    const index = loop.local(word.type);
    this.scaled.set(key, index);
    this.pushPower(loop, power);
    word.load(loop.number(0), at);
    word.op(loop, 'mul').tee(index);
  }

  /** omega^power; each power is worked out where it is first wanted. */
  private pushPower(loop: Code, power: number): void {
    const { word } = this;
    if (power === 1) {
      loop.get(this.omega);
      return;
    }
    const known = this.powers.get(power);
    if (known !== undefined) {
      loop.get(known);
      return;
    }
    const index = loop.local(word.type);
    this.powers.set(power, index);
    if (power < 0) {
      word.constant(loop, 1);
      this.pushPower(loop, -power);
      word.op(loop, 'div');
    } else if (power === 0) word.constant(loop, 1);
    else {
      this.pushPower(loop, power - 1);
      word.op(loop.get(this.omega), 'mul');
    }
    loop.tee(index);
  }

  private foldProduct(a: Steady, b: Steady): Steady {
    if (a.kind === 'zero' || b.kind === 'zero') return { kind: 'zero' };
    const negative = a.negative !== b.negative;
    if (a.kind === 'one') return { ...b, negative };
    if (b.kind === 'one') return { ...a, negative };
    const { word, fold } = this;
    const at = this.allocate();
    fold.number(0);
    word.load(fold.number(0), a.at);
    word.load(fold.number(0), b.at);
    word.store(word.op(fold, 'mul'), at);
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
      const { word, fold } = this;
      fold.number(0);
      terms.forEach((term, i) => {
        if (i === 0) {
          this.pushSteady(term);
          return;
        }
        this.pushSteady({ ...term, negative: false });
        word.op(fold, term.negative ? 'sub' : 'add');
      });
      word.store(fold, at);
      return { kind: 'board', at, power, negative: false } as const;
    });
  }

  private loopSum(base: Term, folded: readonly Steady[], rest: readonly SignedProduct[]): Term {
    const level = this.levelOf(base, ...rest.flatMap(({ a, b }) => [a, b]));
    const parts: { negative: boolean; push: () => void }[] = [];
    const one = (term: Term): void => {
      if (term.kind !== 'zero')
        parts.push({ negative: term.negative, push: () => this.push(bare(term), level) });
    };
    if (base.kind === 'local') one(base);
    folded.forEach(one);
    for (const { negative, a, b } of rest) {
      const minus = [a, b].filter((x) => x.kind !== 'zero' && x.negative).length;
      parts.push({
        negative: negative !== (minus === 1),
        push: () => this.pushProduct(bare(a), bare(b), level),
      });
    }
    // A sum that begins with a plus saves a change of sign; one of nothing but minuses is taken as one.
    const negative = parts.every((part) => part.negative);
    parts.sort((p, q) => Number(p.negative) - Number(q.negative));
    parts.forEach((part, i) => {
      part.push();
      if (i > 0) this.word.op(this.loops[level], part.negative !== negative ? 'sub' : 'add');
    });
    return signed(this.local(level), negative);
  }

  private pushProduct(a: Term, b: Term, level: number): void {
    if (a.kind === 'one') this.push(b, level);
    else if (b.kind === 'one') this.push(a, level);
    else {
      this.push(a, level);
      this.push(b, level);
      this.word.op(this.loops[level], 'mul');
    }
  }
}

/** x, or -x. */
const signed = <T extends Term>(x: T, negative: boolean): T =>
  x.kind === 'zero' || !negative ? x : { ...x, negative: !x.negative };

const bare = <T extends Term>(x: T): T => (x.kind === 'zero' ? x : { ...x, negative: false });
