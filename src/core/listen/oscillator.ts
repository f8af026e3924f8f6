import { seededRandom } from '@/core/random';

/** What can be heard through a circuit. */
export const SOUNDS = ['saw', 'square', 'pulse', 'triangle', 'sine', 'noise', 'pluck'] as const;
export type Sound = (typeof SOUNDS)[number];

/** Of the period that a pulse is high. */
const PULSE_DUTY = 0.2;
/** A plucked tone falls to a thousandth within so many seconds. */
const PLUCK_SECONDS = 0.6;

/**
 * A tone of one volt to either side of nought, sample by sample. Jumps are rounded by the polynomial
 * that takes what would fold down out of them (V. Välimäki, A. Huovilainen, "Antialiasing Oscillators
 * in Subtractive Synthesis", IEEE Signal Processing Magazine 24, 2007).
 */
export class Oscillator {
  /** Where in its period it is, 0 to 1. */
  private phase = 0;
  private triangle = -1;
  private pluck = 0;
  private readonly random = seededRandom(1);

  constructor(
    public sound: Sound,
    readonly rate: number,
  ) {}

  /** A note begins: what is plucked is plucked anew. */
  strike(): void {
    this.pluck = 1;
  }

  /** @returns what brings it back to where it is now; noise is other noise then */
  mark(): () => void {
    const { phase, triangle, pluck } = this;
    return () => void Object.assign(this, { phase, triangle, pluck });
  }

  /** The next sample of a tone of `hz`. */
  next(hz: number): number {
    const step = hz / this.rate;
    this.phase += step;
    if (this.phase >= 1) this.phase -= Math.floor(this.phase);
    const { phase } = this;
    switch (this.sound) {
      case 'saw':
        return 2 * phase - 1 - rounding(phase, step);
      case 'square':
        return this.square(step, 0.5);
      case 'pulse':
        return this.square(step, PULSE_DUTY);
      case 'triangle':
        // A square summed up; a little leak holds its middle.
        this.triangle += 4 * step * this.square(step, 0.5) - this.triangle * step * 0.02;
        return this.triangle;
      case 'sine':
        return Math.sin(2 * Math.PI * phase);
      case 'noise':
        return 2 * this.random() - 1;
      case 'pluck':
        this.pluck *= Math.exp(Math.log(1e-3) / (PLUCK_SECONDS * this.rate));
        return this.pluck * (2 * phase - 1 - rounding(phase, step));
    }
  }

  private square(step: number, duty: number): number {
    const { phase } = this;
    const fall = phase >= duty ? phase - duty : phase - duty + 1;
    return (phase < duty ? 1 : -1) + rounding(phase, step) - rounding(fall, step);
  }
}

/** What a jump by two volts at the beginning of a period lacks to be band-limited. */
function rounding(phase: number, step: number): number {
  if (phase < step) {
    const t = phase / step;
    return t + t - t * t - 1;
  }
  if (phase > 1 - step) {
    const t = (phase - 1) / step;
    return t * t + t + t + 1;
  }
  return 0;
}
