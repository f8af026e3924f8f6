import type { SlotMatrix } from '../linear/matrix';
import type { Plan } from '../linear/plan';
import type { Program } from '../linear/program';
import type { ComplexTrace } from '../ac/complex';
import { CompiledSolver } from './compiled-solver';
import { frequencyKernel } from './frequency-kernel';
import { compiled } from './wasm';

/** Frequencies a kernel is handed at once: those of a drawing or a tolerance run, all of them. */
const WIDTH = 512;
/** Programs with more steps than this make modules that take too long to compile. */
const MOST_STEPS = 20_000;

/**
 * A program compiled to WebAssembly, with memory of its own; undefined where that is missing or not
 * allowed, or where the program is too long.
 */
export function compileFrequencies(
  matrix: SlotMatrix,
  rhs: ComplexTrace,
  plan: Plan,
  program: Program,
  transposedFor?: number,
): CompiledSolver | undefined {
  if (program.updates.length / 4 + program.lowers.length / 3 > MOST_STEPS) return undefined;
  const { bytes, layout, width } = frequencyKernel(matrix, plan, program, WIDTH, transposedFor);
  const module = compiled(bytes);
  if (!module) return undefined;
  try {
    const kernel = { module, layout, width, rhsRows: program.rhsRows };
    return new CompiledSolver(matrix.size, matrix.rows.length, rhs, kernel);
  } catch {
    // There is no memory left for it; the plain twin needs less.
    return undefined;
  }
}
