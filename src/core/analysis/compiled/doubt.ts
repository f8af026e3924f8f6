import type { ComplexTerm } from './complex-terms';
import { ZERO, type Algebra, type Term } from './terms';

/** The largest terms that went into a pivot, squared: steady ones by power of omega, others in a local. */
export class Largest {
  /** By power: where the largest square stands in memory. */
  private readonly steady = new Map<number, number>();
  private moving: Term | undefined;

  constructor(private readonly algebra: Algebra) {}

  /** One more term. */
  note({ re, im }: ComplexTerm): void {
    const moving = [re, im].filter((x) => x.kind === 'local');
    for (const x of [re, im]) if (x.kind === 'one' || x.kind === 'board') this.noteSteady(x);
    if (moving.length > 0) this.noteMoving(moving);
  }

  private noteSteady(x: Extract<Term, { kind: 'one' | 'board' }>): void {
    const power = x.kind === 'one' ? 0 : 2 * x.power;
    const { word, fold, allocate } = this.algebra;
    const known = this.steady.get(power);
    const at = known ?? allocate();
    this.steady.set(power, at);
    fold.number(0);
    if (x.kind === 'one') word.constant(fold, 1);
    else {
      word.load(fold.number(0), x.at);
      word.load(fold.number(0), x.at);
      word.op(fold, 'mul');
    }
    if (known !== undefined) word.op(word.load(fold.number(0), known), 'pmax');
    word.store(fold, at);
  }

  private noteMoving(parts: readonly Term[]): void {
    const { algebra } = this;
    const square = algebra.sum(
      ZERO,
      parts.map((x) => ({ negative: false, a: x, b: x })),
    );
    this.moving = this.moving ? algebra.larger(square, this.moving) : square;
  }

  /**
   * What the pivot has lost: the largest term over the pivot, squared. Terms of several powers count
   * with their sum, which is at most a few times their largest.
   */
  over(inverseSquare: Term): Term {
    const { algebra } = this;
    const steady = [...this.steady].map(([power, at]) => algebra.board(at, power));
    const moving = this.moving ? [this.moving] : [];
    return algebra.sum(
      ZERO,
      [...steady, ...moving].map((x) => ({ negative: false, a: x, b: inverseSquare })),
    );
  }
}
