import { EigenvalueDecomposition, inverse, Matrix, solve } from 'ml-matrix';
import type { Ladder } from '../../response/ladder-network';
import { doublyTerminated } from '../../response/ladder';
import { centreOfPoles, type StageFigures } from '../figures';
import { sortedPoles } from '../poles-of-parts';
import type { StageAsk } from '../topology';

/*
 * A leapfrog circuit copies a ladder's equations, one integrator for each element (F. E. J. Girling,
 * E. F. Good, "Active filters 12: the leap-frog or active-ladder synthesis", Wireless World 76,
 * 1970). Whatever the parts, it obeys (G + s C) u = b Vin, from which its poles and gain follow.
 */

/** The normalised ladder of an ask, source 1 ohm. */
export function ladderOf({ f0Hz, poles, zerosHz = [] }: StageAsk): Ladder {
  return doublyTerminated(
    poles!.map(({ f0Hz: hz, q }) => ({ w0: hz / f0Hz, ...(q === undefined ? {} : { q }) })),
    zerosHz.map((hz) => hz / f0Hz),
  );
}

/** What a ladder passes at d.c., from its source to the last state. */
export const dcOfLadder = ({ loadOhms, elements }: Ladder): number =>
  (elements.length % 2 === 1 ? loadOhms : 1) / (1 + loadOhms);

export interface StateEquations {
  conductance: number[][];
  capacitance: number[][];
  drive: number[];
}

/** Poles and d.c. gain of the last state. */
export function figuresOfStates({ conductance, capacitance, drive }: StateEquations): StageFigures {
  const G = new Matrix(conductance);
  const C = new Matrix(capacitance);
  const { realEigenvalues, imaginaryEigenvalues } = new EigenvalueDecomposition(
    inverse(C).mmul(G).mul(-1),
  );
  const poles = sortedPoles(realEigenvalues.map((re, k) => ({ re, im: imaginaryEigenvalues[k] })));
  const rest = solve(G, Matrix.columnVector(drive)).to1DArray();
  return { f0Hz: centreOfPoles(poles), gain: rest[rest.length - 1], poles };
}

export const squareOf = (n: number): number[][] =>
  Array.from({ length: n }, () => new Array<number>(n).fill(0));
export const states = (n: number): number[] => Array.from({ length: n }, (_, k) => k + 1);
