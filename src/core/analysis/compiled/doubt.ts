import type { ComplexTerm } from './complex-terms';
import { ZERO, type Algebra, type Term } from './terms';

/** In two lanes, the largest terms that went into a pivot, squared: steady ones by power of omega, others in a local. */
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
    const { fold, allocate } = this.algebra;
    const known = this.steady.get(power);
    const at = known ?? allocate();
    this.steady.set(power, at);
    fold.number(0);
    if (x.kind === 'one') fold.pairOf(1);
    else fold.number(0).loadPair(x.at).number(0).loadPair(x.at).pair('mul');
    if (known !== undefined) fold.number(0).loadPair(known).pair('pmax');
    fold.storePair(at);
  }

  private noteMoving(parts: readonly Term[]): void {
    const { algebra } = this;
    const square = algebra.sum(
      ZERO,
      parts.map((x) => ({ negative: false, a: x, b: x })),
    );
    if (!this.moving) {
      this.moving = square;
      return;
    }
    algebra.push(square);
    algebra.push(this.moving);
    algebra.loops[0].pair('pmax');
    this.moving = algebra.local();
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
