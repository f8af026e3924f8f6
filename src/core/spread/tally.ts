import { percentiles } from '@/core/analysis/boards/percentiles';

/** So many boards are kept whole; beyond them they are counted in steps. */
const KEPT = 4096;
const STEPS = 1024;
/** How far beyond what the kept boards reach the steps go, as a part of that. */
const BEYOND = 0.5;
const LEAST_REACH = 1e-6;

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

  constructor(boards: number) {
    this.kept = new Float64Array(Math.min(boards, KEPT));
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
    const [low, high] = this.kept.reduce<[number, number]>(
      ([a, b], y) => [Math.min(a, y), Math.max(b, y)],
      [Infinity, -Infinity],
    );
    const reach = Math.max(high - low, LEAST_REACH);
    this.least = low - BEYOND * reach;
    this.step = ((1 + 2 * BEYOND) * reach) / STEPS;
    const counts = new Uint32Array(STEPS);
    for (const value of this.kept) counts[this.placeOf(value)]++;
    return counts;
  }
}
