/** What is stopped lies so far down, dB. */
const STOP_DB = 100;
/** The highest frequency that is to pass unchanged, as a part of the rate that is heard: 20 kHz of 48. */
const PASS = 20 / 48;

/** Bessel function I0 by its series: it converges for every argument of a window. */
function besselI0(x: number): number {
  let [sum, term] = [1, 1];
  for (let k = 1; term > 1e-12 * sum; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

/**
 * Taps of a half-band low-pass of odd length, by a Kaiser window (J. F. Kaiser, "Nonrecursive Digital
 * Filter Design Using the I0-sinh Window Function", 1974): every second one but the middle is nought.
 *
 * @param pass highest frequency that passes, as a part of the higher rate, below a quarter
 */
export function halfBandTaps(pass: number): Float64Array {
  const width = 0.5 - 2 * pass;
  const beta = 0.1102 * (STOP_DB - 8.7);
  const half = 2 * Math.ceil(((STOP_DB - 7.95) / (14.36 * width) + 1) / 4) - 1;
  const taps = new Float64Array(2 * half + 1);
  for (let k = -half; k <= half; k++) {
    const window = besselI0(beta * Math.sqrt(1 - (k / (half + 1)) ** 2)) / besselI0(beta);
    const sinc = k === 0 ? 0.5 : k % 2 === 0 ? 0 : Math.sin((Math.PI * k) / 2) / (Math.PI * k);
    taps[k + half] = sinc * window;
  }
  const sum = taps.reduce((a, b) => a + b, 0);
  return taps.map((t) => t / sum);
}

/** Two samples become one: what would fold down is taken out first. */
class Halver {
  private readonly taps: Float64Array;
  private readonly past: Float64Array;
  private at = 0;

  constructor(pass: number) {
    this.taps = halfBandTaps(pass);
    // Twice as long, so that the last samples always lie in one piece.
    this.past = new Float64Array(2 * this.taps.length);
  }

  /** Samples that it is late by, at the higher rate. */
  get delay(): number {
    return (this.taps.length - 1) / 2;
  }

  /** @returns how many were written */
  run(input: Float64Array, count: number, output: Float64Array): number {
    const { taps, past } = this;
    const n = taps.length;
    const middle = (n - 1) / 2;
    for (let k = 0; k < count; k += 2) {
      this.push(input[k]);
      this.push(input[k + 1]);
      const from = this.at;
      let sum = taps[middle] * past[from + middle];
      for (let i = 0; i < n; i += 2) sum += taps[i] * past[from + i];
      output[k / 2] = sum;
    }
    return count / 2;
  }

  /** @returns what brings it back to where it is now */
  mark(): () => void {
    const { at } = this;
    const past = this.past.slice();
    return () => {
      this.at = at;
      this.past.set(past);
    };
  }

  private push(x: number): void {
    const { past, taps } = this;
    past[this.at] = past[this.at + taps.length] = x;
    this.at = (this.at + 1) % taps.length;
  }
}

/** From a rate that is a power of two times higher down to what is heard. */
export class Decimator {
  /** Samples that what is heard is late by: a whole number. */
  readonly late: number;
  private readonly halvers: Halver[] = [];
  private readonly work: Float64Array;
  /** The last samples of what came before, which wait for the delay to be whole. */
  private readonly waiting: Float64Array;
  private readonly delayed: Float64Array;

  /**
   * @param times 1, 2, 4, 8, …
   * @param longest output that is asked for at once
   */
  constructor(
    readonly times: number,
    longest: number,
  ) {
    for (let n = times; n > 1; n /= 2) this.halvers.push(new Halver(PASS / n));
    this.work = new Float64Array(longest * times);
    this.delayed = new Float64Array(longest * times);
    const fine = this.halvers.reduce((sum, halver, k) => sum + halver.delay * 2 ** k, 0);
    const samples = Math.ceil(fine / times);
    this.waiting = new Float64Array(samples * times - fine);
    // A sample is that of the end of its steps.
    this.late = samples - 1;
  }

  /** @param output as many samples as are to be written; `input` is `times` as long */
  run(input: Float64Array, output: Float64Array): void {
    let count = output.length * this.times;
    if (count === output.length) {
      output.set(input.subarray(0, count));
      return;
    }
    let from = this.held(input, count);
    this.halvers.forEach((halver, k) => {
      const to = k === this.halvers.length - 1 ? output : this.work;
      count = halver.run(from, count, to);
      from = to;
    });
  }

  /** @returns what brings it back to where it is now */
  mark(): () => void {
    const waiting = this.waiting.slice();
    const halvers = this.halvers.map((halver) => halver.mark());
    return () => {
      this.waiting.set(waiting);
      for (const back of halvers) back();
    };
  }

  /** What came a little earlier. */
  private held(input: Float64Array, count: number): Float64Array {
    const { waiting, delayed } = this;
    const n = waiting.length;
    if (n === 0) return input;
    delayed.set(waiting);
    delayed.set(input.subarray(0, count - n), n);
    waiting.set(input.subarray(count - n, count));
    return delayed;
  }
}
