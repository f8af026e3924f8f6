import type { Entry } from '@/core/circuit/compile';
import { stopIfAsked } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { CompiledSolver } from '../compiled/compiled-solver';
import type { BatchSolver, TransferSolver } from '../linear/batch-solver';
import { ExactMatrix } from '../linear/exact-matrix';
import { FrequencySolver } from '../linear/frequency-solver';
import type { SlotMatrix } from '../linear/matrix';
import { singularError } from '../linear/singular';
import { TwinTransfer } from '../linear/twin-transfer';
import { emptyTrace, unitTrace, type ComplexTrace } from './complex';
import { keyOf, type Prepared } from './prepared';
import { questionOf, type Question } from './question';
import { Scrutiny, type Aim } from './scrutiny';

/** The direct solution x and the transposed one y at `count` neighbouring frequencies of a question. */
export interface TransferBatch {
  /** Index of the first of them. */
  from: number;
  count: number;
  /** Of the whole question, radians a second. */
  omega: Float64Array;
  /** Entry `row` at the k-th frequency of the batch is at `row * width + k`. */
  width: number;
  /** y[row] is what a unit put into equation `row` does to the unknown that was asked for. */
  yRe: Float64Array;
  yIm: Float64Array;
  xRe: Float64Array;
  xIm: Float64Array;
}

/** Frequencies the plain twin solves side by side, at most and at least. */
const WIDEST = 32;
const NARROWEST = 1;

/**
 * Solves small-signal equations with the values they have at the time: by a compiled plan where
 * enough was asked to pay for it, by its plain twin otherwise, and by the careful twin where a plan
 * loses digits.
 */
export class SmallSignalSolver {
  private readonly scrutiny: Scrutiny;
  private question: Question | undefined;
  /** For all unknowns at a single frequency. */
  private narrow: FrequencySolver | undefined;
  /** The equations in two doubles, as they stood at a revision of the matrix. */
  private exact: { revision: number; matrix: ExactMatrix } | undefined;
  /** By what is asked for and by width. */
  private readonly twins = new Map<string, FrequencySolver>();
  private readonly transfers = new Map<number, TwinTransfer>();

  /** @param source of the entries of the matrix and the values they are made of */
  constructor(
    private readonly prepared: Prepared,
    private readonly matrix: SlotMatrix,
    private readonly source: { entries: readonly Entry[]; values: Float64Array },
  ) {
    const { rhs, measured } = prepared;
    const exact = () => this.exactMatrix();
    this.scrutiny = new Scrutiny({ matrix, rhs, exact, narrow: () => this.narrow }, measured);
    this.scrutiny.moved(source.values);
  }

  /** Values have changed. */
  moved(): void {
    this.scrutiny.moved(this.source.values);
  }

  /** The present equations in two doubles. */
  exactMatrix(): ExactMatrix {
    const { entries, values } = this.source;
    const { revision } = this.matrix;
    if (this.exact?.revision !== revision)
      this.exact = { revision, matrix: new ExactMatrix(this.matrix, entries, values) };
    return this.exact.matrix;
  }

  /**
   * The traces of some unknowns, in their order.
   *
   * @throws ReedError `range`, `singular`
   */
  traces(
    frequenciesHz: Float64Array,
    wanted: readonly number[],
    signal?: AbortSignal,
  ): ComplexTrace[] {
    const traces = wanted.map(() => emptyTrace(frequenciesHz.length));
    this.fill(traces, frequenciesHz, wanted, signal);
    return traces;
  }

  /** The same into traces that are there. */
  fill(
    traces: readonly ComplexTrace[],
    frequenciesHz: Float64Array,
    wanted: readonly number[],
    signal?: AbortSignal,
  ): void {
    const question = this.ask(frequenciesHz);
    const { omega } = question;
    const total = omega.length;
    if (wanted.length === 0 || total === 0) return;
    const key = String(keyOf(wanted));
    const solver = this.solverFor(key, omega, wanted);
    const width = solver?.width ?? WIDEST;
    const limits = solver && this.limitsOf(solver, question, { wanted }, key);
    for (let from = 0; from < total; from += width) {
      stopIfAsked(signal);
      const count = Math.min(width, total - from);
      if (solver) {
        solver.solve(omega, from, count);
        copyOut(solver, wanted, traces, from, count);
      }
      const doubts = solver && limits ? doubtful(solver.doubt, limits, from, count) : all(count);
      for (const k of doubts) {
        const x = this.carefully(omega[from + k], { wanted });
        wanted.forEach((unknown, i) => {
          traces[i].re[from + k] = x.re[unknown];
          traces[i].im[from + k] = x.im[unknown];
        });
      }
    }
  }

  /**
   * The transposed solution for one unknown at each frequency, with the direct one beside it, a
   * batch at a time.
   *
   * @throws ReedError `range`, `singular`
   */
  eachTransfer(
    unknown: number,
    frequenciesHz: Float64Array,
    visit: (batch: TransferBatch) => void,
  ): void {
    const question = this.ask(frequenciesHz);
    const { omega } = question;
    // Nothing is asked, and a plan made for no frequency would be a bad one.
    if (omega.length === 0) return;
    const unit = unitTrace(this.matrix.size, unknown);
    const direct: Aim = { wanted: [unknown] };
    const back: Aim = { wanted: 'all', rhs: unit, transposed: true };
    const solver = this.transferFor(unknown, omega);
    const forward = solver && this.limitsOf(solver, question, direct, `${unknown}`);
    const backward = solver && this.limitsOf(solver, question, back, `to ${unknown}`);
    const width = solver?.width ?? WIDEST;
    const room = (own: Float64Array | undefined) => own ?? new Float64Array(unit.re.length * width);
    const x = { re: room(solver?.xRe), im: room(solver?.xIm) };
    const y = { re: room(solver?.yRe), im: room(solver?.yIm) };
    for (let from = 0; from < omega.length; from += width) {
      const count = Math.min(width, omega.length - from);
      solver?.solve(omega, from, count);
      for (let k = 0; k < count; k++) {
        const least = forward && backward ? Math.min(forward[from + k], backward[from + k]) : -1;
        if (solver && solver.doubt[k] <= least) continue;
        putLane(this.carefully(omega[from + k], direct), x, k, width);
        putLane(this.carefully(omega[from + k], back), y, k, width);
      }
      visit({ from, count, omega, width, yRe: y.re, yIm: y.im, xRe: x.re, xIm: x.im });
    }
  }

  /** A planned solver for all unknowns at one frequency; undefined where no order of pivots serves. */
  single(frequenciesHz: Float64Array): FrequencySolver | undefined {
    this.plan(this.ask(frequenciesHz).omega);
    return this.narrow;
  }

  /**
   * All unknowns at one frequency, to the digits that the values give.
   *
   * @throws ReedError `singular` where the equations have no unique solution
   */
  carefully(omega: number, aim: Aim): ComplexTrace {
    const x = this.scrutiny.solve(omega, aim);
    if ('unknown' in x) {
      const at = inWords(omega / (2 * Math.PI), 'hertz');
      throw singularError(this.prepared.system, x.unknown, x.equation, ` at ${at}`);
    }
    return x;
  }

  /** See Scrutiny; a compiled solver is measured by itself. */
  private limitsOf(solver: BatchSolver, question: Question, aim: Aim, key: string): Float64Array {
    return solver instanceof CompiledSolver
      ? this.scrutiny.limitsOf(question, { ...aim, by: solver }, `compiled ${key}`)
      : this.scrutiny.limitsOf(question, aim, key);
  }

  private ask(frequenciesHz: Float64Array): Question {
    return (this.question = questionOf(frequenciesHz, this.question));
  }

  /** Find an order of pivots, if none is known; false where none serves. */
  private plan(omega: Float64Array): boolean {
    if (!this.narrow && this.prepared.plansFor(omega))
      this.narrow = this.twin('all', 'all', NARROWEST);
    return this.narrow !== undefined;
  }

  private solverFor(
    key: string,
    omega: Float64Array,
    wanted: readonly number[],
  ): BatchSolver | undefined {
    if (!this.plan(omega)) return undefined;
    const compiled = this.prepared.compiledFor(key, omega.length, wanted);
    if (compiled) return compiled.of(this.matrix);
    // Questions for a few frequencies get a narrow solver: its arrays are a fraction of the size.
    const width = omega.length > 8 ? WIDEST : omega.length > 4 ? 8 : 4;
    return this.twin(key, wanted, width);
  }

  private transferFor(unknown: number, omega: Float64Array): TransferSolver | undefined {
    if (!this.plan(omega)) return undefined;
    const compiled = this.prepared.compiledFor(`to ${unknown}`, 2 * omega.length, 'all', unknown);
    if (compiled) return compiled.of(this.matrix);
    let transfer = this.transfers.get(unknown);
    if (!transfer) {
      transfer = new TwinTransfer(this.twin('all', 'all', WIDEST), unknown);
      this.transfers.set(unknown, transfer);
    }
    return transfer;
  }

  private twin(key: string, wanted: readonly number[] | 'all', width: number): FrequencySolver {
    const name = `${key} ${width}`;
    let solver = this.twins.get(name);
    if (!solver) {
      const { plan, program } = this.prepared.programFor(wanted);
      solver = new FrequencySolver(this.matrix, plan, { rhs: this.prepared.rhs, program, width });
      this.twins.set(name, solver);
    }
    return solver;
  }
}

function copyOut(
  { xRe, xIm, width }: BatchSolver,
  wanted: readonly number[],
  traces: readonly ComplexTrace[],
  from: number,
  count: number,
): void {
  for (let i = 0; i < wanted.length; i++) {
    const { re, im } = traces[i];
    const at = wanted[i] * width;
    re.set(xRe.subarray(at, at + count), from);
    im.set(xIm.subarray(at, at + count), from);
  }
}

/** The frequencies of a batch at which pivots lost more than they may. */
function doubtful(
  doubt: Float64Array,
  limits: Float64Array,
  from: number,
  count: number,
): readonly number[] {
  let found: number[] | undefined;
  for (let k = 0; k < count; k++) if (!(doubt[k] <= limits[from + k])) (found ??= []).push(k);
  return found ?? NONE;
}

const NONE: readonly number[] = [];
const all = (count: number): readonly number[] => Array.from({ length: count }, (_, k) => k);

/** Set the values of one frequency of a batch. */
function putLane(from: ComplexTrace, to: ComplexTrace, k: number, width: number): void {
  for (let i = 0; i < from.re.length; i++) {
    to.re[i * width + k] = from.re[i];
    to.im[i * width + k] = from.im[i];
  }
}
