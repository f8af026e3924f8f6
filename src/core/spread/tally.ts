import { percentiles } from '@/core/analysis/boards/percentiles';

/** So many boards are kept whole; beyond them they are counted in steps. */
const KEPT = 4096;
const STEPS = 1024;
/** How far beyond what the kept boards reach the steps go, as a part of that. */
const BEYOND = 0.5;
const LEAST_REACH = 1e-6;

/** How a span is parted into steps: where the first begins, and how wide each is. */
export interface TallyFrame {
  least: number;
  step: number;
}

/** What a tally has counted, to be added to another of the same frame. */
export interface TallyCount extends TallyFrame {
  counts: Uint32Array;
  count: number;
  /** Of the values less the shift, and of their squares. */
  sum: number;
  squares: number;
  shift: number;
}

/**
 * Many numbers, of which percentiles are asked. The first few thousand are kept as they are; then the
 * span that they fill, and half as much beyond, is parted into a thousand steps in which further ones
 * are counted, so that a hundred thousand boards need no more room than a few thousand.
 */
export class Tally {
  count = 0;
  private readonly kept: Float64Array;
  private counts: Uint32Array | undefined;
  private least = 0;
  private step = 0;
  private sum = 0;
  private squares = 0;
  private shift = 0;

  /** @param frame steps to count in from the first number on, where they are known */
  constructor(boards: number, frame?: TallyFrame) {
    this.kept = new Float64Array(frame ? 0 : Math.min(boards, KEPT));
    if (!frame) return;
    this.least = frame.least;
    this.step = frame.step;
    this.counts = new Uint32Array(STEPS);
  }

  /** Everything that was counted so far, in steps. */
  counted(): TallyCount {
    const { count, sum, squares, shift } = this;
    const counts = (this.counts ?? this.parted()).slice();
    return { counts, least: this.least, step: this.step, count, sum, squares, shift };
  }

  /** Add what another tally has counted in the same steps. */
  take(other: TallyCount): void {
    this.counts ??= this.parted();
    if (this.count === 0) this.shift = other.shift;
    const apart = other.shift - this.shift;
    this.sum += other.sum + other.count * apart;
    this.squares += other.squares + 2 * apart * other.sum + other.count * apart * apart;
    this.count += other.count;
    for (let k = 0; k < STEPS; k++) this.counts[k] += other.counts[k];
  }

  add(value: number): void {
    if (this.count === 0) this.shift = value;
    this.sum += value - this.shift;
    this.squares += (value - this.shift) ** 2;
    if (this.count < this.kept.length) this.kept[this.count++] = value;
    else {
      this.counts ??= this.parted();
      this.counts[this.placeOf(value)]++;
      this.count++;
    }
  }

  get mean(): number {
    return this.shift + this.sum / this.count;
  }

  /** Standard deviation of what was counted, as an estimate for all there could be. */
  get sd(): number {
    if (this.count < 2) return 0;
    const mean = this.sum / this.count;
    return Math.sqrt(Math.max(0, (this.squares - this.count * mean * mean) / (this.count - 1)));
  }

  /** @param parts rising, 0 to 1 */
  percentiles(parts: readonly number[]): number[] {
    if (this.count === 0) return parts.map(() => NaN);
    if (!this.counts) return percentiles(this.kept.slice(0, this.count), parts);
    const { counts } = this;
    let [below, k] = [0, 0];
    return parts.map((part) => {
      const wanted = part * this.count;
      while (k < STEPS - 1 && below + counts[k] < wanted) below += counts[k++];
      const within = counts[k] > 0 ? (wanted - below) / counts[k] : 0;
      return this.least + (k + Math.min(1, Math.max(0, within))) * this.step;
    });
  }

  private placeOf(value: number): number {
    const k = Math.floor((value - this.least) / this.step);
    return k < 0 ? 0 : k < STEPS ? k : STEPS - 1;
  }

  private parted(): Uint32Array {
    const kept = this.kept.subarray(0, this.count);
    const [low, high] = kept.reduce<[number, number]>(
      ([a, b], y) => [Math.min(a, y), Math.max(b, y)],
      kept.length > 0 ? [Infinity, -Infinity] : [0, 0],
    );
    const reach = Math.max(high - low, LEAST_REACH);
    this.least = low - BEYOND * reach;
    this.step = ((1 + 2 * BEYOND) * reach) / STEPS;
    const counts = new Uint32Array(STEPS);
    for (const value of kept) counts[this.placeOf(value)]++;
    return counts;
  }
}
