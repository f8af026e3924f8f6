import type { Sheet } from '@/core/sheet/schema';
import { SLICE, type Heard, type Rewinds } from './heard';
import { affordable, OVERSAMPLING, type Afforded } from './heard-circuit';
import { Limiter } from './limiter';
import type { Program } from './program';
import { Score } from './score';

/** What two things are compared at: rms of what is heard, as a part of full scale (20 dB under it). */
const HEARD_AT = 0.1;
/** So much of the program is played to see how loud a circuit is, and so much of that to let it settle. */
const MATCH_SECONDS = 0.5;
const SETTLING = 1 / 8;
/** Slices that are played between two stops of that. */
const PIECE = 24;
/** One gives way to the other within so many slices. */
const FADE_SLICES = 8;
/** What is hardly there is not brought up any further: 80 dB. */
const MOST_GAIN = 1e4;

export type Side = 'a' | 'b';

interface Loaded extends Afforded {
  gain: number;
  sheet: Sheet;
  way: number;
}

/** What a side is heard with. */
export interface SideState {
  /** Steps of the engine to a sample. */
  times: number;
  /** Of a core. */
  share: number;
  /** What brings it to the common level, dB. */
  gainDb: number;
  /** Steps that could not be settled since it was loaded. */
  lost: number;
}

/**
 * Plays a program through the solved circuit of a sheet, or of either of two, brought to the same
 * level. It knows nothing of where the sound goes: `next` fills one slice after the other.
 */
export class Audition implements Rewinds {
  readonly score: Score;
  private readonly sides: Partial<Record<Side, Loaded>> = {};
  private side: Side = 'a';
  /** Steps to a sample at most. */
  private most = OVERSAMPLING[0] as number;
  /** Of the fade from what was heard before, slices that are left. */
  private fade = 0;
  private leaving: Loaded | undefined;
  private readonly limiter: Limiter;
  private readonly buffers = [new Float64Array(SLICE), new Float64Array(SLICE)];

  constructor(
    private readonly rate: number,
    private readonly clock: () => number = () => performance.now(),
  ) {
    this.limiter = new Limiter(rate);
    this.score = new Score(rate);
  }

  /** How far the limiter is holding back, as a gain. */
  get limiting(): number {
    return this.limiter.gain;
  }

  /** Whether there is anything to be heard. */
  get ready(): boolean {
    return this.sides[this.side] !== undefined;
  }

  /** What is played from now on. */
  play(program: Program): Generator<void, void> {
    this.score.play(program);
    return this.matchAll();
  }

  /** A recording at the rate that is heard, full scale at 1. */
  record(samples: Float64Array | undefined): Generator<void, void> {
    this.score.record(samples);
    return this.matchAll();
  }

  /**
   * A sheet that is wired as what is heard on that side: its values are gone to smoothly.
   *
   * @returns what makes it go there; undefined where it must be loaded
   * @throws ReedError where the sheet makes no circuit
   */
  take(side: Side, sheet: Sheet, way = 0): (() => void) | undefined {
    const loaded = this.sides[side];
    const go = loaded?.way === way ? loaded.circuit.take(sheet) : undefined;
    if (!loaded || !go) return undefined;
    return () => {
      go();
      loaded.sheet = sheet;
    };
  }

  /**
   * Hear a sheet on one side, whatever is wired there. It is made anew, which takes some tenths of a
   * second: a generator that stops between pieces of it, each of some hundredths at most.
   *
   * @throws ReedError where it cannot be solved; what was heard before goes on
   */
  *load(side: Side, sheet: Sheet, way = 0): Generator<void, void> {
    const { rate, clock, most } = this;
    const { volts } = this.score.program;
    const afforded = yield* affordable(sheet, way, { rate, volts, clock, most });
    yield;
    const loaded = { ...afforded, gain: 1, sheet, way };
    yield* this.match(loaded);
    const replaced = this.sides[side];
    this.sides[side] = loaded;
    if (side === this.side && replaced) this.fadeFrom(replaced);
  }

  /** This machine has other work: what is heard takes half as many steps from now on. */
  *relieve(): Generator<void, void> {
    const heard = this.sides[this.side];
    if (!heard || heard.circuit.times === 1) return;
    this.most = heard.circuit.times / 2;
    for (const side of [this.side, this.side === 'a' ? 'b' : 'a'] as const) {
      const loaded = this.sides[side];
      if (loaded && loaded.circuit.times > this.most)
        yield* this.load(side, loaded.sheet, loaded.way);
    }
  }

  unload(side: Side): void {
    delete this.sides[side];
    if (side === this.side) this.side = side === 'a' ? 'b' : 'a';
  }

  choose(side: Side): void {
    if (side === this.side) return;
    const before = this.sides[this.side];
    this.side = side;
    if (before && this.sides[side]) this.fadeFrom(before);
  }

  state(side: Side): SideState | undefined {
    const loaded = this.sides[side];
    return (
      loaded && {
        times: loaded.circuit.times,
        share: loaded.share,
        gainDb: 20 * Math.log10(loaded.gain),
        lost: loaded.circuit.lost,
      }
    );
  }

  private fadeFrom(before: Loaded): void {
    this.leaving = before;
    this.fade = FADE_SLICES;
  }

  /** Bring what is loaded to the common level again, for what is played now. */
  private *matchAll(): Generator<void, void> {
    yield;
    for (const side of ['a', 'b'] as const) {
      const loaded = this.sides[side];
      if (loaded) yield* this.match(loaded);
    }
  }

  /** Finds what brings a circuit to the common level: a stretch of the program through another of its kind. */
  private *match(loaded: Loaded): Generator<void, void> {
    const { rate } = this;
    const { program } = this.score;
    const { sheet, way, circuit } = loaded;
    const trial = circuit.fresh(sheet, way, rate);
    yield;
    const score = new Score(rate);
    // What is not known beforehand is taken to be as wide as noise; notes come quickly, to be heard all.
    const own = program.sound === 'recording' || program.sound === 'input';
    const beatsPerMinute = (60 * Math.max(1, program.notes.length)) / MATCH_SECONDS;
    score.play({ ...program, sound: own ? 'noise' : program.sound, beatsPerMinute });
    const output = new Float64Array(SLICE);
    const slices = Math.ceil((MATCH_SECONDS * rate) / SLICE);
    const settled = Math.ceil(SETTLING * slices);
    let sum = 0;
    for (let k = 0; k < slices; k++) {
      playSlice(score, trial, output);
      if (k >= settled) for (const v of output) sum += v * v;
      if (k % PIECE === PIECE - 1) yield;
    }
    const rms = Math.sqrt(sum / ((slices - settled) * SLICE));
    loaded.gain = Math.min(MOST_GAIN, rms > 0 ? HEARD_AT / rms : 1);
  }

  /** @returns what brings it back to where it is now; what is loaded, and which side is heard, stays */
  mark(): () => void {
    const { fade, leaving, score, limiter } = this;
    const circuits = [this.sides[this.side], leaving].flatMap((l) => (l ? [l.circuit] : []));
    const parts = [score, limiter, ...circuits].map((part) => part.mark());
    return () => {
      this.fade = fade;
      this.leaving = leaving;
      for (const back of parts) back();
    };
  }

  /**
   * The next slice of what is heard, full scale at 1.
   *
   * @param incoming what comes in, where that is played
   */
  next(output: Float32Array, incoming?: Float32Array): void {
    const { score, leaving } = this;
    const loaded = this.sides[this.side];
    if (!loaded) {
      output.fill(0);
      return;
    }
    const [one, other] = this.buffers;
    score.follow();
    const times = Math.max(loaded.circuit.times, leaving?.circuit.times ?? 0);
    const input = score.source(times, incoming);
    hear(score, loaded.circuit, input, one);
    if (leaving) hear(score, leaving.circuit, input, other);
    score.passed();
    for (let k = 0; k < SLICE; k++) {
      let x = loaded.gain * one[k];
      if (leaving) {
        const part = (this.fade - k / SLICE) / FADE_SLICES;
        x = (1 - part) * x + part * leaving.gain * other[k];
      }
      output[k] = this.limiter.next(x);
    }
    if (leaving && --this.fade === 0) this.leaving = undefined;
  }
}

/** A slice of a score through one circuit. */
export function playSlice(score: Score, circuit: Heard, output: Float64Array): void {
  score.follow();
  hear(score, circuit, score.source(circuit.times), output);
  score.passed();
}

/** Of two that fade one may take coarser steps of the same source. */
function hear(score: Score, circuit: Heard, input: Float64Array, output: Float64Array): void {
  circuit.open(score.opened(circuit));
  const skip = input.length / (SLICE * circuit.times);
  circuit.play(skip === 1 ? input : input.filter((_, k) => (k + 1) % skip === 0), output);
}
