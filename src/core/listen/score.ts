import { SLICE } from './heard';
import type { HeardCircuit } from './heard-circuit';
import { Oscillator } from './oscillator';
import { openedBy, USUAL_PROGRAM, type Note, type Program } from './program';

/** What the source plays, slice by slice, and how far notes have opened the cut-off. */
export class Score {
  private own: Program = USUAL_PROGRAM;
  private oscillator: Oscillator | undefined;
  private recording: Float64Array | undefined;
  private place = 0;
  private seconds = 0;
  /** Step of the sequence. */
  private step = -1;
  private note: Note | undefined;
  /** Keys that are held, the last one last. */
  private held: number[] = [];
  /** Where the last sample of what is no tone ended. */
  private last = 0;
  /** By steps to a sample. */
  private readonly inputs = new Map<number, Float64Array>();

  constructor(private readonly rate: number) {}

  get program(): Program {
    return this.own;
  }

  /** What is played from now on; a sequence begins anew where its notes or its speed changed. */
  play(program: Program): void {
    const { notes, beatsPerMinute } = this.own;
    const same =
      String(notes) === String(program.notes) && beatsPerMinute === program.beatsPerMinute;
    this.own = program;
    if (!same) this.step = -1;
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

  /** Before each slice: the sequence goes on, as long as no key is held. */
  follow(): void {
    const { notes, beatsPerMinute } = this.own;
    if (this.held.length > 0) return;
    if (notes.length === 0) {
      if (!this.note) this.begin(0);
      return;
    }
    const step = Math.floor((this.seconds * beatsPerMinute) / 60 + 1e-9);
    if (step === this.step) return;
    this.step = step;
    this.begin(notes[step % notes.length]);
  }

  /** After each slice. */
  passed(): void {
    this.seconds += SLICE / this.rate;
  }

  private begin(semitones: number): void {
    this.note = { semitones, sinceSeconds: this.seconds };
    this.oscillator?.strike();
  }

  /** @returns what brings it back to where it is now; what is played, and the keys, stay */
  mark(): () => void {
    const { place, seconds, step, last, oscillator } = this;
    const note = this.note && { ...this.note };
    const tone = oscillator?.mark();
    return () => {
      Object.assign(this, { place, seconds, step, last, oscillator, note });
      tone?.();
    };
  }

  /** How far the cut-off of a circuit is opened now, as a part of its control’s travel. */
  opened({ span }: Pick<HeardCircuit, 'span'>): number {
    const { note, own } = this;
    if (!note) return 0;
    const octaves = own.follows ? note.semitones / 12 : 0;
    return (
      own.opens * openedBy(own, this.seconds - note.sinceSeconds) + (span ? octaves / span : 0)
    );
  }

  /**
   * Volts of the source over one slice.
   *
   * @param times steps to each sample
   * @param incoming what comes in, where that is played
   */
  source(times: number, incoming?: Float32Array): Float64Array {
    let input = this.inputs.get(times);
    if (!input) this.inputs.set(times, (input = new Float64Array(SLICE * times)));
    const { own, recording } = this;
    if (own.sound === 'input') this.between(input, times, (k) => incoming?.[k] ?? 0);
    else if (own.sound === 'recording') {
      const n = recording?.length ?? 0;
      this.between(input, times, (k) => (n > 0 ? recording![(this.place + k) % n] : 0));
      if (n > 0) this.place = (this.place + SLICE) % n;
    } else {
      const rate = this.rate * times;
      if (this.oscillator?.sound !== own.sound || this.oscillator.rate !== rate) {
        this.oscillator = new Oscillator(own.sound, rate);
        this.oscillator.strike();
      }
      const hz = own.hz * 2 ** ((this.note?.semitones ?? 0) / 12);
      for (let i = 0; i < input.length; i++) input[i] = own.volts * this.oscillator.next(hz);
    }
    return input;
  }

  /** Straight lines between samples. */
  private between(input: Float64Array, times: number, at: (k: number) => number): void {
    for (let k = 0, i = 0; k < SLICE; k++) {
      const next = this.own.volts * at(k);
      for (let n = 1; n <= times; n++) input[i++] = this.last + ((next - this.last) * n) / times;
      this.last = next;
    }
  }
}
