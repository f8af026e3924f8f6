import type { Rewinds } from '@/core/listen/heard';

/** What takes the place of what was made before comes in within so many samples: see the feeder. */
const JOIN = 64;

/**
 * What was made ahead of the audio thread. Whatever that has not come to yet can be made anew, so that a
 * change is soon heard however much lies ahead; what was made before is played until then.
 */
export class MadeAhead {
  /** The sample that is made next, counted from the beginning, and where all that lies there ends. */
  private next = 0;
  private end = 0;
  private played = 0;
  /** The next piece takes the place of what was made before. */
  private joins = false;
  /** Where pieces begin that can be made anew, and what goes back there. */
  private marks: { at: number; back: () => void }[] = [];

  constructor(private readonly sound: Rewinds) {}

  /** Samples from where the audio thread is to what is made next; less than none where that is overtaken. */
  get samples(): number {
    return this.next - this.played;
  }

  get begun(): boolean {
    return this.end > 0;
  }

  /** Whether what is made next takes the place of something. */
  get again(): boolean {
    return this.next < this.end;
  }

  /** The audio thread has come so far. */
  reached(played: number): void {
    this.played = played;
    this.marks = this.marks.filter(({ at }) => at >= played);
  }

  /**
   * Before a piece is made.
   *
   * @param again whether it can be made anew
   * @returns where it begins, and whether it takes the place of what was made before
   */
  begin(samples: number, again: boolean): { at: number; joins: boolean } {
    const { next: at, joins } = this;
    if (again) this.marks.push({ at, back: this.sound.mark() });
    this.next += samples;
    this.end = Math.max(this.end, this.next);
    this.joins = false;
    return { at, joins };
  }

  /** Before a change: what lies further ahead than `lead` samples is made anew. */
  goBack(lead: number): void {
    const first = this.marks.findIndex(({ at }) => at >= this.played + lead);
    if (first < 0) return;
    const [{ at, back }] = this.marks.splice(first);
    back();
    this.next = at;
    this.joins = true;
  }

  /** There is no time to make it anew: what was made before is played to its end, and this comes after it. */
  giveUp(): void {
    if (!this.again) return;
    this.next = Math.max(this.played, this.end - JOIN);
    this.joins = true;
    this.keep();
  }

  /** What was made stays as it is. */
  keep(): void {
    this.marks = [];
  }
}
