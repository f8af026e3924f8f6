import { messageOf } from '@/core/errors';
import { Audition, type Side } from '@/core/listen/audition';
import { SLICE } from '@/core/listen/heard';
import type { Sheet } from '@/core/sheet/schema';
import { Lead } from './lead';
import type { FromFeeder, PlayerState, ToFeeder, ToPlayer } from './listen-messages';
import { MadeAhead } from './made-ahead';

/** So much is made before anything else is done: it lasts while this machine does something else. */
const NEAR = 1280;
/** So far ahead it is made in between. */
const FAR = 6144;
/** Of the pieces of 128 samples so many lacking within such a stretch are too many: finer steps than this machine bears. */
const TOO_MANY = 40;
const STRETCH = 2000;
/** Then so much at a time: what it is told must soon be heard, and each turn costs something. */
const SOME = 1024;
/** It makes no longer at a time, milliseconds, whatever is wanted. */
const LONGEST = 60;
/** What is made anew and has not come so near within that time is made too slowly, milliseconds. */
const SLOW = 50;
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
  private made!: MadeAhead;
  private lead = new Lead();
  /** What was told and is to be heard, and when something began to be made anew. */
  private readonly changes: (() => void)[] = [];
  private wentBack = 0;
  private missed = 0;
  /** Where the present stretch began, and how many were lacking then. */
  private stretch = { at: 0, missed: 0 };
  private work: { side: Side | null; steps: Generator<void, void> }[] = [];
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
      this.made = new MadeAhead(this.audition);
      this.lead = new Lead();
      this.missed = 0;
      this.port = message.port;
      this.port.onmessage = (event: MessageEvent<FromFeeder>) => this.fed(event.data);
      this.toldAt = this.clock();
      return;
    }
    const { audition } = this;
    if (!audition) return;
    switch (message.is) {
      case 'program':
        this.changes.push(() => this.make(null, audition.play(message.program)));
        break;
      case 'recording': {
        const samples = message.samples ? Float64Array.from(message.samples) : undefined;
        this.changes.push(() => this.make(null, audition.record(samples)));
        break;
      }
      case 'load':
        // Of a stream of edits only the last counts.
        this.pending.set(message.side, message);
        break;
      case 'unload':
        this.pending.delete(message.side);
        this.forget(message.side);
        // What was told before it comes before it.
        this.takeChanges();
        audition.unload(message.side);
        this.made.keep();
        delete this.problems[message.side];
        break;
      case 'choose':
        this.changes.push(() => audition.choose(message.side));
        break;
      case 'press':
        this.changes.push(() => audition.score.press(message.semitones));
        break;
      case 'release':
        this.changes.push(() => audition.score.release(message.semitones));
        break;
    }
    this.wake();
  }

  private fed({ played, missed, incoming }: FromFeeder): void {
    this.made.reached(played);
    this.missed = missed;
    this.relieve(this.clock());
    if (incoming) {
      this.incoming.push(incoming);
      const waiting = this.incoming.reduce((n, block) => n + block.length, 0);
      if (waiting > MOST_INCOMING) this.incoming = this.incoming.slice(-2);
    }
    this.wake();
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

  /** A turn: all that waited has been heard by now. */
  private readonly goOn = (): void => {
    this.working = false;
    this.watch();
    this.takePending();
    this.takeChanges();
    if (this.work.length > 0) {
      // Enough to last while the next piece of it is made.
      this.play(FAR);
      this.step();
    }
    // What is soon wanted at once, the rest some at a time.
    this.play(Math.min(Math.max(NEAR, this.made.samples + SOME), this.ahead));
    if (this.clock() - this.toldAt > EVERY) this.tell();
    if (this.work.length > 0 || (this.audition!.ready && this.made.samples < this.ahead))
      this.wake();
  };

  /** Whether there is time to make anew what was made before. */
  private watch(): void {
    const { made, lead } = this;
    if (!made.begun) return;
    const now = this.clock();
    const slow = made.again && made.samples < NEAR && now - this.wentBack > SLOW;
    if (!lead.enough(slow ? 0 : made.samples, now)) made.giveUp();
  }

  /** What changes is heard soon, however much lies ahead. */
  private takeChanges(): void {
    if (this.changes.length === 0) return;
    if (!this.made.again) this.wentBack = this.clock();
    this.made.goBack(this.lead.samples);
    for (const change of this.changes.splice(0)) change();
  }

  private takePending(): void {
    for (const [side, { sheet, way }] of this.pending) {
      this.forget(side);
      const known = this.problems[side];
      this.trying(side, () => {
        const go = this.audition!.take(side, sheet as Sheet, way);
        if (go) this.changes.push(go);
        else this.work.push({ side, steps: this.audition!.load(side, sheet as Sheet, way) });
        return go !== undefined;
      });
      if (this.problems[side] !== known) this.tell();
    }
    this.pending.clear();
  }

  private step(): void {
    const [first] = this.work;
    if (!first) return;
    if (!this.trying(first.side, () => first.steps.next().done === true)) return;
    this.work = this.work.filter((w) => w !== first);
    this.made.keep();
    if (this.work.length === 0) this.tell();
  }

  /**
   * Goes on with a side; what goes wrong is said of it until it is heard as it is.
   *
   * @param what whether it is heard so by now
   * @returns whether there is nothing left to do
   */
  private trying(side: Side | null, what: () => boolean): boolean {
    try {
      const done = what();
      if (done && side) delete this.problems[side];
      return done;
    } catch (error) {
      if (side) this.problems[side] = messageOf(error);
      return true;
    }
  }

  /** How far ahead it is made: what comes in cannot be made before it does. */
  private get ahead(): number {
    return this.incomes ? this.lead.samples : FAR;
  }

  private get incomes(): boolean {
    return this.audition!.score.program.sound === 'input';
  }

  /** Plays until so much lies ahead, or time is up. */
  private play(ahead: number): void {
    const { audition, port, made } = this;
    if (!audition?.ready || !port) return;
    const from = this.clock();
    while (made.samples < ahead && this.clock() - from < LONGEST) {
      const samples = new Float32Array(SLICE * TOGETHER);
      const place = made.begin(samples.length, !this.incomes);
      for (let k = 0; k < TOGETHER; k++)
        audition.next(samples.subarray(k * SLICE, (k + 1) * SLICE), this.nextIncoming());
      const block: ToFeeder = { ...place, samples };
      port.postMessage(block, [samples.buffer]);
    }
    this.busy += this.clock() - from;
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
