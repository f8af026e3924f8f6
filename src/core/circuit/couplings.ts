import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';

interface CouplingLike {
  id: string;
  kind: string;
  inductors?: readonly [string, string];
  k?: number;
}

/**
 * Coils can share no more flux than they have: each coupling joins two coils, each pair is coupled
 * once, and the matrix of all couplings is positive definite, or a current could be found that stores
 * less than no energy.
 *
 * @throws ReedError `circuit` naming the coupling
 */
export function checkCouplings(parts: readonly CouplingLike[]): void {
  const coils: string[] = [];
  const couplings = parts.flatMap(({ id, kind, inductors, k }) =>
    kind === 'coupling' && inductors && k !== undefined ? [{ id, inductors, k }] : [],
  );
  const pairs = new Set<string>();
  for (const { id, inductors } of couplings) {
    const [a, b] = inductors;
    if (a === b)
      throw new ReedError(
        'circuit',
        `Part ${quoted(id)} couples coil ${quoted(a)} with itself: name two coils.`,
        { part: id },
      );
    const pair = [a, b].sort().join('\n');
    if (pairs.has(pair))
      throw new ReedError(
        'circuit',
        `Part ${quoted(id)} couples coils ${quoted(a)} and ${quoted(b)} a second time: keep one of the two.`,
        { part: id },
      );
    pairs.add(pair);
    for (const coil of inductors) if (!coils.includes(coil)) coils.push(coil);
  }
  const stuck = firstImpossible(coils, couplings);
  if (stuck !== undefined)
    throw new ReedError(
      'circuit',
      `The couplings of coil ${quoted(stuck)} cannot be together: the coils it is coupled with would have to share more flux than there is. Lower them, or couple those coils with each other as well.`,
      { part: stuck },
    );
}

/** The first coil at which Cholesky's root of the matrix of couplings would be that of nothing. */
function firstImpossible(
  coils: readonly string[],
  couplings: readonly { inductors: readonly [string, string]; k: number }[],
): string | undefined {
  const n = coils.length;
  const m = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (_, j) => +(i === j)));
  for (const { inductors, k } of couplings) {
    const [i, j] = inductors.map((coil) => coils.indexOf(coil));
    m[i][j] = m[j][i] = k;
  }
  for (let i = 0; i < n; i++) {
    if (!(m[i][i] > 0)) return coils[i];
    for (let row = i + 1; row < n; row++) {
      const factor = m[row][i] / m[i][i];
      for (let column = i; column < n; column++) m[row][column] -= factor * m[i][column];
    }
  }
  return undefined;
}
