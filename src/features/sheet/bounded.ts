import { ReedError } from '@/core/errors';
import { boundsProblem, type BoundedKind } from '@/core/quantity/bounds';

/**
 * What takes a typed quantity: refuses one outside the bounds of its kind, in words that begin with its
 * name.
 */
export const bounded =
  (name: string, kind: BoundedKind, take: (value: number) => void) =>
  (value: number | null): void => {
    const problem = boundsProblem(value!, kind);
    if (problem) throw new ReedError('range', `${name} ${problem}.`);
    take(value!);
  };
