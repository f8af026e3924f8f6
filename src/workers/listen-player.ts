import { messageOf } from '@/core/errors';
import { Audition, type Side } from '@/core/listen/audition';
import { SLICE } from '@/core/listen/heard';
import type { Sheet } from '@/core/sheet/schema';
import type { FromFeeder, PlayerState, ToPlayer } from './listen-messages';

/** Samples that lie ready for the audio thread: what a knob does is heard so much later. */
const AHEAD = 1280;
/** The same while something is made, which takes some hundredths of a second at a time. */
const AHEAD_MAKING = 6144;
/** At first, and after something was lacking, there is so many times as much ahead; after each calm stretch half of it. */
const WIDE = 4;
const CALM = 1500;
/** Where no more than this lay ready, something would soon have been lacking. */
const CLOSE = 256;
/** So long after a change the audio thread may still speak of what lay ready before it, milliseconds. */
const ARRIVING = 100;
/** Of the pieces of 128 samples so many lacking within such a stretch are too many: finer steps than this machine bears. */
const TOO_MANY = 40;
const STRETCH = 2000;
/** It makes no longer ahead at a time, milliseconds. */
const LONGEST_FILL = 60;
/** Slices that are sent together. */
const TOGETHER = 2;
/** What it says of itself comes so often, milliseconds. */
const EVERY = 250;

/** How much comes in before it counts as late and is left out, samples. */
const MOST_INCOMING = 4096;

/**
 * Plays ahead of the audio thread: as much as it has played is made anew. Lives in a worker; the page
 * tells it what, and the audio thread how far it is.
 */
export class ListenPlayer {
  private audition: Audition | undefined;
  private port: MessagePort | undefined;
  private sent = 0;
  private played = 0;
  private missed = 0;
  private widened = WIDE;
  private widenedAt = 0;
  private least = 1;
  /** The least that lay ready in the present calm stretch. */
  private reserve = Infinity;
  /** Where the present stretch began, and how many were lacking then. */
  private stretch = { at: 0, missed: 0 };
  private work: { side: Side | null; steps: Generator<void, void>; begun?: true }[] = [];
  private readonly pending = new Map<Side, Extract<ToPlayer, { is: 'load' }>>();
  private working = false;
  private readonly problems: PlayerState['problems'] = {};
  private busy = 0;
  private toldAt = 0;
  private toldBusy = 0;
  private incoming: Float32Array[] = [];
  private incomingAt = 0;

  /**
   * @param say to the page
   * @param later runs something once messages that wait have been taken
   */
  constructor(
    private readonly say: (state: PlayerState) => void,
    private readonly later: (run: () => void) => void,
    private readonly clock: () => number = () => performance.now(),
  ) {}

  hear(message: ToPlayer): void {
    if (message.is === 'begin') {
      this.audition = new Audition(message.rate, this.clock);
      this.port = message.port;
      this.sent = this.played = this.missed = 0;
      this.reserve = Infinity;
      this.port.onmessage = (event: MessageEvent<FromFeeder>) => this.fed(event.data);
      this.toldAt = this.widenedAt = this.clock();
      return;
    }
    const { audition } = this;
    if (!audition) return;
    switch (message.is) {
      case 'program':
        this.make(null, audition.play(message.program));
        break;
      case 'recording':
        this.make(
          null,
          audition.record(message.samples ? Float64Array.from(message.samples) : undefined),
        );
        break;
      case 'load':
        // Of a stream of edits only the last counts: it is taken once those that wait have been heard.
        this.pending.set(message.side, message);
        this.wake();
        return;
      case 'unload':
        this.pending.delete(message.side);
        this.forget(message.side);
        audition.unload(message.side);
        delete this.problems[message.side];
        break;
      case 'choose':
        audition.choose(message.side);
        break;
      case 'press':
        audition.score.press(message.semitones);
        break;
      case 'release':
        audition.score.release(message.semitones);
        break;
    }
    this.fill();
  }

  private fed({ played, missed, ready = Infinity, incoming }: FromFeeder): void {
    this.played = played;
    const now = this.clock();
    if (now - this.widenedAt > ARRIVING) this.reserve = Math.min(this.reserve, ready);
    this.widen(missed > this.missed, now);
    this.missed = missed;
    this.relieve(now);
    if (incoming) {
      this.incoming.push(incoming);
      const waiting = this.incoming.reduce((n, block) => n + block.length, 0);
      if (waiting > MOST_INCOMING) this.incoming = this.incoming.slice(-2);
    }
    this.fill();
  }

  /** How far ahead it makes follows from how near it came to having nothing. */
  private widen(lacked: boolean, now: number): void {
    const { widened, reserve } = this;
    if (lacked || (reserve <= CLOSE && widened < WIDE)) {
      // What was too little once is too little here.
      this.least = Math.min(WIDE, 2 * (lacked ? this.least : widened));
      this.widened = lacked ? WIDE : this.least;
    } else if (now - this.widenedAt > CALM) {
      // Half as much must have been enough all the while.
      if (widened > this.least && reserve > (AHEAD * widened) / 2 + CLOSE)
        this.widened = widened / 2;
    } else return;
    this.widenedAt = now;
    this.reserve = Infinity;
  }

  /** Where too much is lacking in spite of all that lies ahead, steps are made coarser. */
  private relieve(now: number): void {
    const { audition, stretch, missed, work } = this;
    if (missed - stretch.missed > TOO_MANY && audition && work.length === 0) {
      this.make(null, audition.relieve());
      this.stretch = { at: now, missed };
    } else if (now - stretch.at > STRETCH) this.stretch = { at: now, missed };
  }

  /** Whatever is to be made for a side replaces what was being made for it. */
  private make(side: Side | null, steps: Generator<void, void>): void {
    this.forget(side);
    this.work.push({ side, steps });
    this.wake();
  }

  private wake(): void {
    if (this.working) return;
    this.working = true;
    this.later(this.goOn);
  }

  private forget(side: Side | null): void {
    this.work = this.work.filter((w) => w.side !== side);
  }

  private readonly goOn = (): void => {
    this.working = false;
    this.takePending();
    const [first] = this.work;
    if (first) {
      // Enough to last while the next piece is made; what only changes values is soon done.
      if (first.begun) this.fill(AHEAD_MAKING);
      else this.fill();
      first.begun = true;
      this.step();
    }
    this.fill();
    if (this.work.length > 0) this.wake();
  };

  private takePending(): void {
    for (const [side, { sheet, way }] of this.pending) {
      const steps = this.audition!.load(side, sheet as Sheet, way);
      this.forget(side);
      this.work.push({ side, steps });
    }
    this.pending.clear();
  }

  private step(): void {
    const [first] = this.work;
    if (!first) return;
    try {
      if (!first.steps.next().done) return;
      if (first.side) delete this.problems[first.side];
    } catch (error) {
      if (first.side) this.problems[first.side] = messageOf(error);
    }
    this.work = this.work.filter((w) => w !== first);
    if (this.work.length === 0) this.tell();
  }

  /** Make what is lacking ahead of the audio thread. */
  private fill(ahead = AHEAD * this.widened): void {
    const { audition, port } = this;
    if (!audition?.ready || !port) return;
    const from = this.clock();
    // An overloaded machine must still hear what it is told.
    while (this.sent - this.played < ahead && this.clock() - from < LONGEST_FILL) {
      const block = new Float32Array(SLICE * TOGETHER);
      for (let k = 0; k < TOGETHER; k++)
        audition.next(block.subarray(k * SLICE, (k + 1) * SLICE), this.nextIncoming());
      this.sent += block.length;
      port.postMessage(block, [block.buffer]);
    }
    this.busy += this.clock() - from;
    if (this.clock() - this.toldAt > EVERY) this.tell();
  }

  private nextIncoming(): Float32Array | undefined {
    const [block] = this.incoming;
    if (!block) return undefined;
    const slice = block.subarray(this.incomingAt, this.incomingAt + SLICE);
    this.incomingAt += SLICE;
    if (this.incomingAt >= block.length) {
      this.incoming.shift();
      this.incomingAt = 0;
    }
    return slice;
  }

  private tell(): void {
    const { audition } = this;
    if (!audition) return;
    const now = this.clock();
    const passed = now - this.toldAt;
    const share = passed > 0 ? (this.busy - this.toldBusy) / passed : 0;
    this.toldAt = now;
    this.toldBusy = this.busy;
    const [a, b] = [audition.state('a'), audition.state('b')];
    this.say({
      is: 'state',
      sides: { ...(a ? { a } : {}), ...(b ? { b } : {}) },
      problems: { ...this.problems },
      loading: this.work.length > 0,
      share,
      limiting: audition.limiting,
      missed: this.missed,
    });
  }
}
