import { LuDecomposition, Matrix } from 'ml-matrix';
import { checkWiring } from '@/core/circuit/check';
import { compile } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { OperatingPointSearch } from '../dc/search';
import type { LargeSignalEquations } from '../large-signal/equations';
import { stepMap } from './step-map';

/** What is played into a circuit besides its rest: a constant, and a sine of the chosen frequency. */
export interface Drive {
  /** Volts of the source, held. */
  held: number;
  /** The sine's present value and its quadrature, volts: sin and cos of its phase. */
  sine: number;
  cosine: number;
}

/**
 * A circuit about its operating point in time, exactly: its equations are linear there, so that one
 * matrix leads from any state to the next, and squaring it doubles the step. The smallest step is
 * so small that the first matrix is exact to rounding; all others follow from it.
 */
export class LinearTime {
  /** The circuit at rest, by unknown. */
  readonly atRest: Float64Array;
  readonly equations: LargeSignalEquations;
  /** Unknowns, then what drives: held, sine, cosine. */
  private readonly size: number;
  /** Of 1, 2, 4, ... smallest steps, row by row. */
  private readonly maps: Float64Array[] = [];
  /** Index of the probed net. */
  readonly unknown: number;

  /**
   * @param source the driving source, of 0 V at rest
   * @param smallestSeconds the step that all others are multiples of
   * @param sineHz of the sine that it can be driven by
   */
  constructor(
    circuit: Circuit,
    source: string,
    probe: string,
    private readonly smallestSeconds: number,
    sineHz: number,
  ) {
    checkWiring(circuit, 'dc');
    const system = compile(circuit, 'large-signal');
    const search = new OperatingPointSearch(system);
    this.atRest = Float64Array.from(search.find());
    this.equations = search.equations;
    this.equations.evaluate(this.atRest);
    const { size, pattern, conductances, capacitances } = this.equations;
    const found = system.netIndex.get(probe);
    if (found === undefined)
      throw new ReedError('circuit', `The circuit has no net “${probe}” to probe.`, { net: probe });
    this.unknown = found;
    this.size = size + 3;
    const storage = new Matrix(this.size, this.size);
    const rates = new Matrix(this.size, this.size);
    for (let slot = 0; slot < pattern.rows.length; slot++) {
      const [i, j] = [pattern.rows[slot], pattern.columns[slot]];
      storage.set(i, j, storage.get(i, j) + capacitances[slot]);
      rates.set(i, j, rates.get(i, j) - conductances[slot]);
    }
    const [held, sine, cosine] = [size, size + 1, size + 2];
    const driven = system.sources.filter((s) => s.part === source);
    for (const { row, sign } of driven)
      for (const drive of [held, sine]) rates.set(row, drive, rates.get(row, drive) + sign);
    for (const drive of [held, sine, cosine]) storage.set(drive, drive, 1);
    rates.set(sine, cosine, 2 * Math.PI * sineHz);
    rates.set(cosine, sine, -2 * Math.PI * sineHz);
    this.maps.push(Float64Array.from(stepMap(storage, rates, smallestSeconds).to1DArray()));
  }

  /** Seconds of a step of 2^k smallest ones. */
  seconds(k: number): number {
    return this.smallestSeconds * 2 ** k;
  }

  private map(k: number): Float64Array {
    while (this.maps.length <= k)
      this.maps.push(squared(this.maps[this.maps.length - 1], this.size));
    return this.maps[k];
  }

  /** The circuit at rest, driven by nothing. */
  restState(): Float64Array {
    return new Float64Array(this.size);
  }

  /** What the source gives from now on; what is stored stays. */
  drive(state: Float64Array, { held, sine, cosine }: Drive): void {
    const n = this.equations.size;
    [state[n], state[n + 1], state[n + 2]] = [held, sine, cosine];
  }

  /** On by 2^k smallest steps. */
  step(state: Float64Array, k: number): Float64Array {
    const map = this.map(k);
    const { size } = this;
    const next = new Float64Array(size);
    for (let i = 0, at = 0; i < size; i++) {
      let sum = 0;
      for (let j = 0; j < size; j++, at++) sum += map[at] * state[j];
      next[i] = sum;
    }
    return next;
  }

  /** Volts of the probed net. */
  volts(state: Float64Array): number {
    return this.atRest[this.unknown] + state[this.unknown];
  }

  /** Every unknown, at rest and moved. */
  unknowns(state: Float64Array): Float64Array {
    return this.atRest.map((x, i) => x + state[i]);
  }

  /**
   * The state just before a rising edge of a square that has gone on for ever, swinging between
   * plus and minus `volts`, each half lasting 2^k smallest steps: half a period turns it over.
   *
   * @throws ReedError `singular` for a circuit that never settles
   */
  steadySquare(volts: number, k: number): Float64Array {
    const n = this.equations.size;
    const map = this.map(k);
    const turned = Matrix.eye(n, n);
    const right = new Matrix(n, 1);
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < n; j++) turned.set(i, j, turned.get(i, j) + map[i * this.size + j]);
      right.set(i, 0, -volts * map[i * this.size + n]);
    }
    const lu = new LuDecomposition(turned);
    const state = this.restState();
    if (!lu.isSingular()) state.set(lu.solve(right).to1DArray());
    if (lu.isSingular() || !state.every(Number.isFinite))
      throw new ReedError(
        'singular',
        'The circuit never settles: nothing in it takes energy away.',
      );
    return state;
  }
}

/** A square matrix times itself; columns of zeros (nothing is stored there) cost nothing. */
function squared(a: Float64Array, n: number): Float64Array {
  const out = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < n; k++) {
      const factor = a[i * n + k];
      if (factor === 0) continue;
      for (let j = 0; j < n; j++) out[i * n + j] += factor * a[k * n + j];
    }
  }
  return out;
}
