import type { Rewinds } from '@/core/listen/heard';

/** Samples before a change is heard: what comes sooner is on its way to the loudspeaker already. */
const UNDER_WAY = 768;

/**
 * What was made ahead of the audio thread. Whatever that has not come to yet can be made anew, so that a
 * change is soon heard however much lies ahead; until then what was made before is played.
 */
export class MadeAhead {
  /** The sample that is made next, counted from the beginning. */
  private next = 0;
  private played = 0;
  /** The next piece takes the place of what was made before. */
  private joins = false;
  /** Where pieces begin that were not played yet, and what goes back there. */
  private marks: { at: number; back: () => void }[] = [];

  constructor(private readonly sound: Rewinds) {}

  /** Samples from where the audio thread is to what is made next. */
  get samples(): number {
    return this.next - this.played;
  }

  /** The audio thread has come so far. */
  reached(played: number): void {
    this.played = played;
    this.marks = this.marks.filter(({ at }) => at >= played);
    if (this.next >= played) return;
    // Making anew was overtaken by what was made before: it goes on from there.
    this.next = played;
    this.joins = true;
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
    this.joins = false;
    return { at, joins };
  }

  /** Before a change: whatever it can still reach is made anew. */
  goBack(): void {
    const first = this.marks.findIndex(({ at }) => at >= this.played + UNDER_WAY);
    if (first < 0) return;
    const [{ at, back }] = this.marks.splice(first);
    back();
    this.next = at;
    this.joins = true;
  }

  /** After a change that cannot be taken back: what was made stays. */
  keep(): void {
    this.marks = [];
  }
}
