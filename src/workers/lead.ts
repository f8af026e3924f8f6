/** Samples that something is made before it is heard, at the least: 16 ms at 48 kHz. */
const LEAST = 768;
/** Up to so many times as many, where that was too little. */
const MOST = 8;
/** No more than this between it and the audio thread is too little. */
const CLOSE = 128;
/** So long it stays as it is after that, milliseconds; then half of it is tried. */
const CALM = 10_000;
/** All that is too little within such a stretch is so for one reason. */
const AT_ONCE = 100;

/**
 * How long before it is heard something is made: a change of a knob, or what comes in. It follows from
 * how near the audio thread came to what was being made.
 */
export class Lead {
  private times = 1;
  private closeAt = -Infinity;

  get samples(): number {
    return LEAST * this.times;
  }

  /**
   * @param between samples that the audio thread still has before it comes to what is being made
   * @returns whether that is enough
   */
  enough(between: number, now: number): boolean {
    const since = now - this.closeAt;
    if (between > CLOSE) {
      if (since > CALM && this.times > 1) {
        this.times /= 2;
        this.closeAt = now;
      }
      return true;
    }
    if (since > AT_ONCE) this.times = Math.min(MOST, 2 * this.times);
    this.closeAt = now;
    return false;
  }
}
