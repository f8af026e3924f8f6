/** What is heard never goes beyond this part of full scale: 6 dB under it. */
export const CEILING = 0.5;
/** The level that it was turned down by comes back within so many seconds. */
const RELEASE_SECONDS = 0.25;
/** A direct voltage is taken out, as the capacitor before an amplifier does. */
const BLOCK_HZ = 5;

/**
 * Guards ears and loudspeakers: a gain that gives way at once to whatever would be too loud, and comes
 * back slowly. What lies under the ceiling passes unchanged.
 */
export class Limiter {
  private peak = 0;
  private readonly release: number;

  constructor(rate: number) {
    this.release = Math.exp(-1 / (RELEASE_SECONDS * rate));
  }

  /** How far it is holding back, as a gain. */
  get gain(): number {
    return this.peak > CEILING ? CEILING / this.peak : 1;
  }

  /** @returns what brings it back to where it is now */
  mark(): () => void {
    const { peak } = this;
    return () => void (this.peak = peak);
  }

  next(x: number): number {
    // What is no number is silence.
    if (!Number.isFinite(x)) return 0;
    this.peak = Math.max(Math.abs(x), this.peak * this.release);
    return x * this.gain;
  }
}

/** Takes the direct voltage out. */
export class Blocker {
  private before = 0;
  private held = 0;
  private readonly keep: number;

  constructor(rate: number) {
    this.keep = 1 - (2 * Math.PI * BLOCK_HZ) / rate;
  }

  /** Begin from a voltage without a thump. */
  reset(volts: number): void {
    this.before = volts;
    this.held = 0;
  }

  /** @returns what brings it back to where it is now */
  mark(): () => void {
    const { before, held } = this;
    return () => void Object.assign(this, { before, held });
  }

  next(x: number): number {
    this.held = x - this.before + this.keep * this.held;
    this.before = x;
    return this.held;
  }
}
