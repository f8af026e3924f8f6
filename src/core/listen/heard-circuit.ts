import { SOURCE } from '@/core/circuit/unit-source';
import { turnedTo } from '@/core/sheet/knobs/travel';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Control, Sheet } from '@/core/sheet/schema';
import { Player } from '@/core/synth/player';
import { Decimator } from './half-band';
import { Oscillator } from './oscillator';
import { SLICE, type Heard } from './heard';
import { HeardSum } from './heard-sum';
import { isSum } from './is-sum';
import { Blocker } from './limiter';

/** A value goes to where it is set by this part of the way a slice: there within some 7 ms, without a click. */
const GLIDE = 0.25;
/** Closer than this part of itself it is there. */
const THERE = 1e-6;
/** Oversampling that is tried, the finest first. */
export const OVERSAMPLING = [8, 4, 2, 1] as const;

/** How one number of the circuit goes along the travel of the control that notes open. */
interface Course {
  parameter: number;
  from: number;
  to: number;
  byRatio: boolean;
}

/** The circuit of a sheet's way as it is heard: its values glide to what the sheet says. */
export class HeardCircuit implements Heard {
  private readonly player: Player;
  private readonly decimator: Decimator;
  private readonly blocker: Blocker;
  private readonly fine: Float64Array;
  private courses: Course[] = [];
  private followed = '';
  /** Where the opened control stands by itself, by parameter where all others are, and where they go. */
  private at = 0;
  private target: Float64Array;
  private base: Float64Array;
  private readonly values: Float64Array;
  private opened = 0;
  private gliding = false;

  /**
   * @param rate samples a second that are heard
   * @param times steps of the engine to each
   * @throws ReedError where the way cannot be solved
   */
  constructor(
    private sheet: Sheet,
    private readonly way: number,
    rate: number,
    readonly times: number,
  ) {
    const seconds = 1 / (rate * times);
    const probe = outNet(sheet, way);
    this.player = new Player(circuitOf(sheet, way), { source: SOURCE, probe, seconds });
    this.decimator = new Decimator(times, SLICE);
    this.fine = new Float64Array(SLICE * times);
    this.blocker = new Blocker(rate);
    this.rest();
    this.target = this.player.values.slice();
    this.base = this.target.slice();
    this.values = this.target.slice();
    this.follow(sheet);
  }

  /** As if it had stood at rest for long: its direct voltage is no thump at the beginning. */
  private rest(): void {
    const slice = new Float64Array(SLICE);
    this.fine.fill(this.player.volts);
    for (let k = 0; k <= 2 * (this.late + 1); k += SLICE) this.decimator.run(this.fine, slice);
    this.blocker.reset(slice[SLICE - 1]);
  }

  /** Samples that it is heard late by. */
  get late(): number {
    return this.decimator.late;
  }

  get compiled(): boolean {
    return this.player.compiled;
  }

  /** Steps that could not be settled. */
  get lost(): number {
    return this.player.lost;
  }

  /** Another of the same kind, at rest. */
  fresh(sheet: Sheet, way: number, rate: number): HeardCircuit {
    return new HeardCircuit(sheet, way, rate, this.times);
  }

  /**
   * What the sheet says now, where it is wired as before.
   *
   * @returns what makes it go there; undefined where another must be made
   */
  take(sheet: Sheet): (() => void) | undefined {
    const values = this.player.valuesOf(circuitOf(sheet, this.way));
    if (!values) return undefined;
    return () => {
      this.target = values;
      this.gliding = true;
      this.follow(sheet);
    };
  }

  /** @returns what brings it back to where it is now; where it is to go stays */
  mark(): () => void {
    const { opened, gliding } = this;
    const [base, values] = [this.base.slice(), this.values.slice()];
    const parts = [this.player, this.decimator, this.blocker].map((part) => part.mark());
    return () => {
      this.opened = opened;
      this.gliding = gliding;
      this.base.set(base);
      this.values.set(values);
      this.player.set(values);
      for (const back of parts) back();
    };
  }

  /** Which of its numbers notes move: those of the control for the cut-off. */
  private follow(sheet: Sheet): void {
    const control = opening(sheet);
    this.at = control?.at ?? 0;
    this.sheet = sheet;
    // Where knobs stand bears on none of it: turning one must cost next to nothing.
    const { parts, source, ways, controls } = sheet;
    const key = JSON.stringify([parts, source, ways, controls.map((c) => ({ ...c, at: 0 }))]);
    if (key === this.followed) return;
    this.followed = key;
    this.courses = control ? this.coursesOf(sheet, control) : [];
  }

  private coursesOf(sheet: Sheet, { id }: Control): Course[] {
    const [low, middle, high] = [0, 0.5, 1].map((at) =>
      this.player.valuesOf(circuitOf(turnedTo(sheet, id, at), this.way)),
    );
    if (!low || !middle || !high) return [];
    return Array.from(low.keys()).flatMap((parameter): Course[] => {
      const [from, to] = [low[parameter], high[parameter]];
      if (from === to || this.player.system.parameters[parameter].by) return [];
      const even = (from + to) / 2;
      const byRatio = from * to > 0 && Math.abs(middle[parameter] - even) > 1e-6 * Math.abs(even);
      return [{ parameter, from, to, byRatio }];
    });
  }

  /** Octaves or volts over the whole travel of the control, where it says so. */
  get span(): number | undefined {
    const control = opening(this.sheet);
    return control?.span ? Math.abs(control.span.to - control.span.from) : undefined;
  }

  /** Open the cut-off by a part of its travel, from now on. */
  open(by: number): void {
    const next = this.courses.length > 0 ? by : 0;
    if (next !== this.opened || this.gliding) {
      this.opened = next;
      this.move();
    }
  }

  private move(): void {
    const { base, target, values } = this;
    let there = true;
    for (let i = 0; i < base.length; i++) {
      const way = target[i] - base[i];
      if (Math.abs(way) > THERE * Math.abs(target[i])) {
        base[i] += GLIDE * way;
        there = false;
      } else base[i] = target[i];
      values[i] = base[i];
    }
    this.gliding = !there;
    if (this.opened !== 0) {
      const at = Math.min(1, Math.max(0, this.at + this.opened));
      for (const { parameter, from, to, byRatio } of this.courses)
        // Where the knob itself is on its way, notes open from there.
        values[parameter] = byRatio
          ? base[parameter] * (to / from) ** (at - this.at)
          : base[parameter] + (to - from) * (at - this.at);
    }
    this.player.set(values);
  }

  /**
   * The next slice: volts of the source, step by step, in; what is heard, without its direct voltage,
   * out.
   */
  play(input: Float64Array, output: Float64Array): void {
    this.player.play(input, this.fine);
    this.decimator.run(this.fine, output);
    for (let k = 0; k < output.length; k++) output[k] = this.blocker.next(output[k]);
  }
}

/** The control that notes open: the cut-off’s, or the first. */
const opening = ({ controls }: Pick<Sheet, 'controls'>): Control | undefined =>
  controls.find((c) => c.for === 'cut-off') ?? controls[0];

const circuitOf = (sheet: Sheet, way: number) => pathCircuit(sheet, way, 'built');

/** What a sheet is heard through: the circuit of its way, or the sum of all of them. */
export const heardOf = (sheet: Sheet, way: number, rate: number, times: number): Heard =>
  isSum(sheet) ? new HeardSum(sheet, rate) : new HeardCircuit(sheet, way, rate, times);

/** So much is tried to see what a circuit costs, in pieces. */
const TRIAL_SLICES = 60;
const PIECE = 12;
const TRIAL_HZ = 110;
/** Of a core that what is heard may take. */
const MOST_SHARE = 0.35;

export interface Afforded {
  circuit: Heard;
  /** Of a core, as it was just measured. */
  share: number;
}

/**
 * The circuit in steps as fine as this machine can take in time; the coarsest where it can take none.
 * It is a generator that stops between pieces of the work, so that what sounds meanwhile can go on.
 *
 * @param volts that it is to be played with
 * @param clock milliseconds
 * @param most steps to a sample
 */
export function* affordable(
  sheet: Sheet,
  way: number,
  {
    rate,
    volts,
    clock,
    most = OVERSAMPLING[0],
  }: { rate: number; volts: number; clock: () => number; most?: number },
): Generator<void, Afforded> {
  const steps = isSum(sheet) ? [1] : OVERSAMPLING.filter((n) => n <= most);
  for (const times of steps) {
    const circuit = heardOf(sheet, way, rate, times);
    yield;
    const oscillator = new Oscillator('saw', rate * times);
    const input = new Float64Array(SLICE * times);
    const output = new Float64Array(SLICE);
    const costs: number[] = [];
    for (let k = 0; k < TRIAL_SLICES; k++) {
      for (let i = 0; i < input.length; i++) input[i] = volts * oscillator.next(TRIAL_HZ);
      const from = clock();
      circuit.play(input, output);
      costs.push(clock() - from);
      if (k % PIECE === PIECE - 1) yield;
    }
    // The first slices go to the compiler, and some to whatever else this machine does.
    const typical = costs.sort((a, b) => a - b)[TRIAL_SLICES >> 1];
    const share = (typical * rate) / (1000 * SLICE);
    if (share < MOST_SHARE || times === 1) {
      return { circuit: circuit.fresh(sheet, way, rate), share };
    }
  }
  throw new Error('There is always a coarsest step.');
}
