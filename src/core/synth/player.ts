import { CompiledSteps, type Way } from '@/core/analysis/compiled/compiled-steps';
import { AUDIBLE } from '@/core/analysis/compiled/stepped-circuit';
import { OperatingPointSearch } from '@/core/analysis/dc/search';
import { netUnknown } from '@/core/analysis/net-unknown';
import { Drive } from '@/core/analysis/transient/drive';
import {
  FORGETTING,
  LEAST_SWING,
  LEAST_VOLTS,
  parabola,
  Stepper,
} from '@/core/analysis/transient/stepper';
import { checkWiring } from '@/core/circuit/check';
import { compile, type System } from '@/core/circuit/compile';
import type { Circuit, Part } from '@/core/circuit/schema';
import { valuesOfAlike } from '@/core/circuit/values';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';

export interface PlayerOptions {
  /** The source whose volts are given, step by step. */
  source: string;
  probe: string;
  /** Nets that are written down beside it. */
  also?: readonly string[];
  /** Length of a step, seconds. */
  seconds: number;
}

/** A step that compiled code does not settle is taken in so many parts, ever more of them. */
const PARTS = [1, 8, 64];
/** A kernel that gave up so often in a row no longer fits the state it was made for. */
const MOST_REFUSALS = 64;

/**
 * A nonlinear circuit that is played: volts in, volts out, step by step, for as long as one likes, its
 * values changing on the way. The steps are those of the engine, by the trapezoidal rule on the given
 * grid, compiled; no step is made shorter for its error's sake, so that each costs the same.
 */
export class Player {
  private readonly search: OperatingPointSearch;
  /** Unknowns that compiled steps write down. */
  private readonly written: readonly number[];
  private readonly stepper: Stepper;
  private readonly rest: Float64Array;
  private readonly rows: { row: number; sign: number }[];
  private readonly rhs: Float64Array;
  private readonly drive: Drive;
  /** Of the probe and of what is written down beside it; -1 for ground. */
  private readonly unknowns: readonly number[];
  private kernel: CompiledSteps | undefined;
  private inside = false;
  private refusals = 0;
  /** Steps that nothing could settle: the circuit was put back to rest there. */
  lost = 0;

  /**
   * @throws ReedError `circuit` for a source or net that is not there, `convergence` where the circuit
   *   has no operating point
   */
  constructor(
    circuit: Circuit,
    private readonly options: PlayerOptions,
  ) {
    const played = withOpenSource(circuit, options.source);
    checkWiring(played, 'dc');
    const system = compile(played, 'large-signal');
    this.unknowns = [options.probe, ...(options.also ?? [])].map((net) => netUnknown(system, net));
    this.written = [...new Set(this.unknowns.filter((u) => u >= 0))];
    this.search = new OperatingPointSearch(system);
    const { equations } = this.search;
    this.stepper = new Stepper(equations, this.search.find());
    this.drive = new Drive(system.sources, equations.values.all, equations.size);
    this.rest = this.drive.steady().slice();
    this.rhs = new Float64Array(equations.size);
    this.rows = this.drive.moving.map(({ row, sign }) => ({ row, sign }));
    this.settle();
    this.makeKernel();
  }

  /** Volts of the probe where the circuit is. */
  get volts(): number {
    return this.voltsOf(this.unknowns[0]);
  }

  private voltsOf(unknown: number): number {
    return unknown < 0 ? 0 : this.stepper.x[unknown];
  }

  /** Whether compiled code takes the steps; without it they cost some ten times as much. */
  get compiled(): boolean {
    return this.kernel !== undefined;
  }

  get system(): System {
    return this.search.system;
  }

  /** Values of a circuit by parameter of the system; undefined where it is wired otherwise. */
  valuesOf(circuit: Circuit): Float64Array | undefined {
    return valuesOfAlike(this.system, withOpenSource(circuit, this.options.source));
  }

  /**
   * The circuit's values are these from now on; voltages stay where they are.
   *
   * @param values by parameter of the system; of those only the independent ones count
   */
  set(values: ArrayLike<number>): void {
    const { equations } = this.search;
    const { all } = equations.values;
    this.system.parameters.forEach(({ by }, i) => {
      if (!by) all[i] = values[i];
    });
    equations.values.refresh();
    this.search.update();
    this.rest.set(this.drive.steady());
    if (this.kernel && !this.kernel.prepare(this.options.seconds)) this.makeKernel();
  }

  /** Present values by parameter. */
  get values(): Float64Array {
    return this.search.equations.values.all;
  }

  /**
   * Play some steps.
   *
   * @param input volts of the source at the end of each
   * @param outputs volts at the end of each: of the probe, and of each net beside it that is wanted
   */
  play(input: Float64Array, ...outputs: readonly Float64Array[]): void {
    for (let k = 0; k < input.length;) {
      const count = Math.min(CompiledSteps.most, input.length - k);
      const taken = this.quick(input, outputs, k, count);
      k += taken;
      if (taken === count) continue;
      this.slow(input[k]);
      for (let i = 0; i < outputs.length; i++) outputs[i][k] = this.voltsOf(this.unknowns[i]);
      k++;
    }
  }

  /** @returns what brings it back to where it is now; its values stay what they are then */
  mark(): () => void {
    // Compiled steps go on undisturbed by being read.
    if (this.inside) this.kernel!.leave(this.stepper);
    const back = this.stepper.mark();
    return () => {
      back();
      this.inside = false;
    };
  }

  /** Steps by compiled code; how many it took. */
  private quick(
    input: Float64Array,
    outputs: readonly Float64Array[],
    from: number,
    count: number,
  ): number {
    const { kernel, rows, unknowns } = this;
    if (!kernel) return 0;
    if (!this.inside) kernel.enter(this.way());
    this.inside = true;
    for (let k = 0, at = 0; k < count; k++)
      for (let n = 0; n < rows.length; n++) kernel.inputs[at++] = input[from + k];
    const taken = kernel.advance(count);
    const width = this.written.length;
    for (let i = 0; i < outputs.length; i++) {
      if (unknowns[i] < 0) outputs[i].fill(0, from, from + taken);
      else {
        const place = this.written.indexOf(unknowns[i]);
        for (let k = 0; k < taken; k++) outputs[i][from + k] = kernel.outputs[k * width + place];
      }
    }
    if (taken > 0) this.refusals = 0;
    return taken;
  }

  /** One step by the plain stepper, in as many parts as it takes; back to rest where none settles. */
  private slow(input: number): void {
    if (this.inside) this.kernel!.leave(this.stepper);
    this.inside = false;
    const { stepper, options } = this;
    const before = stepper.x.slice();
    this.rhs.set(this.rest);
    for (const { row, sign } of this.rows) this.rhs[row] += sign * input;
    for (const parts of PARTS) {
      let settled = true;
      for (let n = 0; settled && n < parts; n++) {
        settled = stepper.euler(options.seconds / parts, this.rhs);
        if (settled) stepper.take(options.seconds / parts);
      }
      if (settled) {
        this.settle();
        if (++this.refusals >= MOST_REFUSALS) this.makeKernel();
        return;
      }
    }
    this.lost++;
    stepper.x.set(before);
    try {
      stepper.x.set(this.search.find(before));
    } catch (error) {
      // Without a place to rest it stays where it was.
      if (!(error instanceof ReedError)) throw error;
    }
    this.settle();
  }

  /** What came before is forgotten: the next step goes on from here alone. */
  private settle(): void {
    const { stepper } = this;
    const { equations } = this.search;
    equations.evaluate(stepper.x);
    stepper.charges.set(equations.charges);
    for (const points of stepper.points) points.set(stepper.x);
    for (const charges of stepper.earlierCharges) charges.set(stepper.charges);
    stepper.rates.fill(0);
    stepper.gaps.fill(this.options.seconds);
  }

  private makeKernel(): void {
    if (this.inside) this.kernel!.leave(this.stepper);
    this.inside = false;
    this.refusals = 0;
    const { seconds } = this.options;
    this.kernel = CompiledSteps.of(this.search.equations, this.stepper.x, {
      rest: this.rest,
      restRows: new Set(this.drive.sources.flatMap((s) => (s.waveform ? [] : [s.row]))),
      inputs: this.rows,
      outputs: this.written,
      size: { least: LEAST_SWING, forgetting: FORGETTING, volts: LEAST_VOLTS },
      exactness: AUDIBLE,
      seconds,
    });
    if (this.kernel && !this.kernel.prepare(seconds)) this.kernel = undefined;
    // An even grid, and no error that would be too large.
    this.kernel?.follow(seconds, parabola(seconds, [seconds, seconds]), 0);
  }

  private way(): Way {
    return this.stepper;
  }
}

/** The circuit with a source that is told its volts from outside; it rests where its d.c. is. */
function withOpenSource(circuit: Circuit, id: string): Circuit {
  let found = false;
  const parts = circuit.parts.map((part): Part => {
    if (part.id !== id || (part.kind !== 'voltage-source' && part.kind !== 'current-source'))
      return part;
    found = true;
    const rest = (part.kind === 'voltage-source' ? part.dcVolts : part.dcAmps) ?? 0;
    return {
      ...part,
      waveform: {
        shape: 'samples',
        offsetVolts: rest,
        sampleSeconds: 1,
        volts: [0],
        repeat: false,
      },
    };
  });
  if (!found)
    throw new ReedError('circuit', `The circuit has no source ${quoted(id)} to play through.`, {
      part: id,
    });
  return { ...circuit, parts };
}
