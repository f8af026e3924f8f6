import { ReedError } from '@/core/errors';
import type { System } from '@/core/circuit/compile';

/** Turn "unknown u / equation e has no pivot" into words about the circuit. */
export function singularError(
  system: System,
  unknown: number,
  equation: number,
  where: string,
): ReedError {
  const column = system.unknowns[unknown];
  const row = system.unknowns[equation];
  const about = column?.kind === 'net' ? column : row?.kind === 'net' ? row : column;
  if (about?.kind === 'net') {
    return new ReedError(
      'singular',
      `Net “${about.name}” has no definite voltage${where}: nothing in the circuit sets it. Give it a path to ground, or check the feedback around the op-amp it belongs to.`,
      { net: about.name },
    );
  }
  const part = row?.kind === 'branch' ? row.name : (about?.name ?? '?');
  return new ReedError(
    'singular',
    `The current of part “${part}” has no definite value${where}: it stands in a loop that fixes voltages only, or its feedback path is missing. Put a small resistance in the loop, or close the feedback.`,
    { part },
  );
}
