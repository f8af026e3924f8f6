import { AcAnalysis } from '@/core/analysis/ac/ac';
import { Adjoint } from '@/core/analysis/sensitivity/adjoint';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { levelDb } from '@/core/response/response';
import type { WantedLevels } from './wanted';

/** A number of a part of a circuit that can be tried otherwise. */
export interface TriedPart {
  id: string;
  /** Field of the part: ohms, farads, henries. */
  field: string;
}

/** One circuit on which values are tried: how far its level is off, and what moves it. */
export class Trial {
  readonly analysis: AcAnalysis;
  private readonly parameters: number[];

  /** @throws ReedError `circuit` for a part that has no such number */
  constructor(
    circuit: Circuit,
    private readonly probe: string,
    parts: readonly TriedPart[],
  ) {
    this.analysis = new AcAnalysis(circuit);
    this.parameters = parts.map(({ id, field }) => {
      const parameter = this.analysis.system.places.get(id)?.get(field);
      if (parameter === undefined)
        throw new ReedError('circuit', `Part “${id}” has no value that could be chosen.`, {
          part: id,
        });
      return parameter;
    });
  }

  /** Put values in; false where the circuit has no operating point with them. */
  set(values: ArrayLike<number>): boolean {
    this.parameters.forEach((parameter, i) => (this.analysis.values[parameter] = values[i]));
    try {
      this.analysis.update();
      return true;
    } catch (error) {
      if (error instanceof ReedError) return false;
      throw error;
    }
  }

  /** How far the level lies above the wanted one, dB; nothing where the circuit cannot be solved. */
  error(values: ArrayLike<number>, wanted: WantedLevels): Float64Array | undefined {
    const found = this.voltages(values, wanted);
    return found && wanted.levelDb.map((db, k) => levelDb(found.re[k], found.im[k]) - db);
  }

  /**
   * The same as it is searched with: decibels as they count, and the bottom of a null filled up, so
   * that what a part does there follows its slope.
   */
  softError(values: ArrayLike<number>, wanted: WantedLevels): Float64Array | undefined {
    const found = this.voltages(values, wanted);
    if (!found) return undefined;
    const { re, im } = found;
    const { softDb, weights, floor } = wanted;
    return softDb.map((db, k) => (softened(re[k] ** 2 + im[k] ** 2, floor) - db) * weights[k]);
  }

  private voltages(values: ArrayLike<number>, { frequenciesHz }: WantedLevels) {
    if (!this.set(values)) return undefined;
    try {
      return this.analysis.voltage(this.probe, frequenciesHz);
    } catch (error) {
      if (error instanceof ReedError) return undefined;
      throw error;
    }
  }

  /** d softError / d ln(value), by part and frequency, for the values that are in. */
  slopes(wanted: WantedLevels, parts: readonly number[]): Float64Array[] {
    const { frequenciesHz, weights, floor } = wanted;
    const { re, im } = this.analysis.voltage(this.probe, frequenciesHz);
    const shares = weights.map((weight, k) => {
      const power = re[k] ** 2 + im[k] ** 2;
      return (weight * power) / (power + floor);
    });
    const asked = parts.map((i) => this.parameters[i]);
    return new Adjoint(this.analysis, this.probe)
      .parts(frequenciesHz, asked)
      .map((found) => found.levelDb.map((db, k) => db * shares[k]));
  }
}

/** A power in dB, filled up from below. */
export const softened = (power: number, floor: number): number => 10 * Math.log10(power + floor);
