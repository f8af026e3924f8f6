/** Samples that lie ready of what cannot be made anew, an input: it is heard so much later. */
const LEAST = 1280;
/** At first, and after something was lacking, there is so many times as much; after each calm stretch half of it. */
const WIDE = 4;
const CALM = 1500;
/** Where no more than this lay ready, something would soon have been lacking. */
const CLOSE = 256;
/** So long after a change the audio thread may still speak of what lay ready before it, milliseconds. */
const ARRIVING = 100;

/** How far ahead an input is played: it follows from how near the audio thread came to having nothing. */
export class Lead {
  private times = WIDE;
  private changedAt: number;
  private least = 1;
  /** The least that lay ready in the present calm stretch. */
  private reserve = Infinity;

  constructor(now: number) {
    this.changedAt = now;
  }

  get samples(): number {
    return LEAST * this.times;
  }

  /**
   * What the audio thread says of itself.
   *
   * @param lacked whether it had nothing
   * @param ready samples that lay ready
   */
  hear(lacked: boolean, ready: number, now: number): void {
    if (now - this.changedAt > ARRIVING) this.reserve = Math.min(this.reserve, ready);
    const { times, reserve } = this;
    if (lacked || (reserve <= CLOSE && times < WIDE)) {
      // What was too little once is too little here.
      this.least = Math.min(WIDE, 2 * (lacked ? this.least : times));
      this.times = lacked ? WIDE : this.least;
    } else if (now - this.changedAt > CALM) {
      // Half as much must have been enough all the while.
      if (times > this.least && reserve > (LEAST * times) / 2 + CLOSE) this.times = times / 2;
    } else return;
    this.changedAt = now;
    this.reserve = Infinity;
  }
}
