import { angles } from './angles';
import { board } from './board';
import { decay } from './decay';
import { delay } from './delay';
import { impedance } from './impedance';
import type { CrossoverLens } from './lens';
import { nominal } from './nominal';
import { phase } from './phase';
import { step } from './step';
import { schools } from './schools';
import { strain } from './strain';
import { sum } from './sum';

/** The lenses of a crossover, the usual ones first; their keys are their places. */
export const CROSSOVER_LENSES: readonly CrossoverLens[] = [
  sum,
  nominal,
  schools,
  phase,
  angles,
  impedance,
  strain,
  step,
  delay,
  decay,
  board,
];

/** The lens that a document names; the first where this program has none of that name. */
export const crossoverLensOf = (id: string): CrossoverLens =>
  CROSSOVER_LENSES.find((l) => l.id === id) ?? CROSSOVER_LENSES[0];
