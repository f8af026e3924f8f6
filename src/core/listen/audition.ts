import type { Sheet } from '@/core/sheet/schema';
import { affordable, SLICE, type Afforded } from './heard-circuit';
import { Limiter } from './limiter';
import { Oscillator } from './oscillator';
import { openedBy, USUAL_PROGRAM, type Note, type Program } from './program';

/** What two things are compared at: rms of what is heard, as a part of full scale (30 dB under it). */
const HEARD_AT = 0.03;
/** So much of the program is played to see how loud a circuit is. */
const MATCH_SECONDS = 0.5;
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
export class Audition {
  private readonly sides: Partial<Record<Side, Loaded>> = {};
  private side: Side = 'a';
  /** Of the fade from the other side, slices that are left. */
  private fade = 0;
  private leaving: Loaded | undefined;
  private program: Program = USUAL_PROGRAM;
  private oscillator: Oscillator;
  private recording: Float64Array | undefined;
  private place = 0;
  private seconds = 0;
  private step = -1;
  private note: Note | undefined;
  private held: number[] = [];
  private readonly limiter: Limiter;
  private readonly buffers = [new Float64Array(SLICE), new Float64Array(SLICE)];

  constructor(
    private readonly rate: number,
    private readonly clock: () => number = () => performance.now(),
  ) {
    this.limiter = new Limiter(rate);
    this.oscillator = new Oscillator('saw', rate);
  }

  /** How far the limiter is holding back, as a gain. */
  get limiting(): number {
    return this.limiter.gain;
  }

  /** What is played from now on; a sequence begins anew where its notes or its speed changed. */
  play(program: Program): void {
    const { notes, beatsPerMinute } = this.program;
    const same =
      String(notes) === String(program.notes) && beatsPerMinute === program.beatsPerMinute;
    this.program = program;
    if (!same) this.step = -1;
    for (const side of ['a', 'b'] as const) this.sides[side] &&= this.matched(this.sides[side]);
  }

  /** A recording at the rate that is heard, full scale at 1. */
  record(samples: Float64Array | undefined): void {
    this.recording = samples;
    this.place = 0;
  }

  /** A key goes down; the last one counts. */
  press(semitones: number): void {
    this.held = [...this.held.filter((s) => s !== semitones), semitones];
    this.begin(semitones);
  }

  release(semitones: number): void {
    this.held = this.held.filter((s) => s !== semitones);
    const last = this.held[this.held.length - 1];
    if (last !== undefined && this.note) this.note.semitones = last;
  }

  /**
   * Hear a sheet on one side. Values that changed are gone to smoothly; what is wired otherwise is made
   * anew, which takes some tens of milliseconds.
   *
   * @throws ReedError where it cannot be solved; what was heard before goes on
   */
  load(side: Side, sheet: Sheet, way = 0): void {
    const before = this.sides[side];
    if (before && before.way === way && before.circuit.take(sheet)) {
      before.sheet = sheet;
      return;
    }
    const afforded = affordable(sheet, way, {
      rate: this.rate,
      volts: this.program.volts,
      clock: this.clock,
    });
    this.sides[side] = this.matched({ ...afforded, gain: 1, sheet, way });
    if (side === this.side && before) this.fadeFrom(before);
  }

  /** Whether a sheet can go on in what is loaded, without anything being made. */
  isAlike(side: Side, sheet: Sheet, way = 0): boolean {
    const loaded = this.sides[side];
    return loaded?.way === way && loaded.circuit.isAlike(sheet);
  }

  unload(side: Side): void {
    delete this.sides[side];
    if (side === this.side) this.side = side === 'a' ? 'b' : 'a';
  }

  choose(side: Side): void {
    if (side === this.side || !this.sides[side]) return;
    const before = this.sides[this.side];
    this.side = side;
    if (before) this.fadeFrom(before);
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

  /** Brought to the common level, by a stretch of the program through a circuit of its own. */
  private matched(loaded: Loaded): Loaded {
    const { sheet, way, circuit } = loaded;
    const trial = circuit.fresh(sheet, way, this.rate);
    const oscillator = new Oscillator(
      this.program.sound === 'recording' || this.program.sound === 'input'
        ? 'noise'
        : this.program.sound,
      this.rate * circuit.times,
    );
    const input = new Float64Array(SLICE * circuit.times);
    const [output] = this.buffers;
    const slices = Math.ceil((MATCH_SECONDS * this.rate) / SLICE);
    const each = Math.ceil(slices / Math.max(1, this.program.notes.length));
    let sum = 0;
    for (let k = 0; k < slices; k++) {
      if (k % each === 0) oscillator.strike();
      const semitones = this.program.notes[Math.floor(k / each)] ?? 0;
      const hz = this.program.hz * 2 ** (semitones / 12);
      for (let i = 0; i < input.length; i++) input[i] = this.program.volts * oscillator.next(hz);
      trial.open(this.program.opens * openedBy(this.program, ((k % each) * SLICE) / this.rate));
      trial.play(input, output);
      // What it takes to settle is not heard.
      if (k > slices / 8) for (const v of output) sum += v * v;
    }
    const rms = Math.sqrt(sum / (slices * SLICE));
    return { ...loaded, gain: Math.min(MOST_GAIN, rms > 0 ? HEARD_AT / rms : 1) };
  }

  /** The next slice of what is heard, full scale at 1. @param incoming what comes in, where that is played */
  next(output: Float32Array, incoming?: Float32Array): void {
    const loaded = this.sides[this.side];
    if (!loaded) {
      output.fill(0);
      return;
    }
    this.follow();
    const [one, other] = this.buffers;
    const steps = this.leaving ? Math.max(loaded.circuit.times, this.leaving.circuit.times) : 0;
    const input = this.source(Math.max(steps, loaded.circuit.times), incoming);
    this.hear(loaded, input, one);
    if (this.leaving) this.hear(this.leaving, input, other);
    for (let k = 0; k < SLICE; k++) {
      let x = loaded.gain * one[k];
      if (this.leaving) {
        const part = (this.fade - k / SLICE) / FADE_SLICES;
        x = (1 - part) * x + part * this.leaving.gain * other[k];
      }
      output[k] = this.limiter.next(x);
    }
    if (this.leaving && --this.fade === 0) this.leaving = undefined;
    this.seconds += SLICE / this.rate;
  }

  private hear({ circuit }: Loaded, input: Float64Array, output: Float64Array): void {
    const { note, program } = this;
    const opened = note ? program.opens * openedBy(program, this.seconds - note.sinceSeconds) : 0;
    const octaves = note && program.follows ? note.semitones / 12 : 0;
    circuit.open(opened + (circuit.span ? octaves / circuit.span : 0));
    const skip = input.length / (SLICE * circuit.times);
    if (skip === 1) circuit.play(input, output);
    else {
      // The other of two that fade takes coarser steps of the same source.
      circuit.play(
        Float64Array.from({ length: SLICE * circuit.times }, (_, k) => input[(k + 1) * skip - 1]),
        output,
      );
    }
  }

  /** The sequence goes on, as long as no key is held. */
  private follow(): void {
    const { notes, beatsPerMinute } = this.program;
    if (this.held.length > 0) return;
    if (notes.length === 0) {
      if (!this.note) this.begin(0);
      return;
    }
    const step = Math.floor((this.seconds * beatsPerMinute) / 60);
    if (step === this.step) return;
    this.step = step;
    this.begin(notes[step % notes.length]);
  }

  private begin(semitones: number): void {
    this.note = { semitones, sinceSeconds: this.seconds };
    this.oscillator.strike();
  }

  private inputs = new Map<number, Float64Array>();

  /** Volts of the source over one slice, so many steps to each sample. */
  private source(times: number, incoming: Float32Array | undefined): Float64Array {
    let input = this.inputs.get(times);
    if (!input) this.inputs.set(times, (input = new Float64Array(SLICE * times)));
    const { program, recording } = this;
    if (program.sound === 'input') this.between(input, times, (k) => incoming?.[k] ?? 0);
    else if (program.sound === 'recording') {
      const n = recording?.length ?? 0;
      this.between(input, times, (k) => (n > 0 ? recording![(this.place + k) % n] : 0));
      if (n > 0) this.place = (this.place + SLICE) % n;
    } else {
      if (this.oscillator.sound !== program.sound || this.oscillator.rate !== this.rate * times) {
        this.oscillator = new Oscillator(program.sound, this.rate * times);
        this.oscillator.strike();
      }
      const hz = program.hz * 2 ** ((this.note?.semitones ?? 0) / 12);
      for (let i = 0; i < input.length; i++) input[i] = program.volts * this.oscillator.next(hz);
    }
    return input;
  }

  private last = 0;

  /** Straight lines between samples. */
  private between(input: Float64Array, times: number, at: (k: number) => number): void {
    const { volts } = this.program;
    for (let k = 0, i = 0; k < SLICE; k++) {
      const next = volts * at(k);
      for (let n = 1; n <= times; n++) input[i++] = this.last + ((next - this.last) * n) / times;
      this.last = next;
    }
  }
}
