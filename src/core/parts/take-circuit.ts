import type { Circuit, Part, PartOf } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { PART_KINDS } from '.';
import type { PartKind, PartTaken } from './part-kind';

/** A part of a circuit as one that can be drawn. */
export interface TakenPart extends PartTaken {
  id: string;
  kind: string;
}

/** The kind that a part of a circuit is drawn as, and what it sees of it. */
export function takenBy(
  part: Part,
  ground: string,
): { kind: PartKind; taken: PartTaken } | undefined {
  for (const kind of PART_KINDS) {
    const taken = kind.take(part, ground);
    if (taken) return { kind, taken };
  }
  return undefined;
}

/**
 * The parts of a circuit as kinds that can be drawn: coils that a coupling names become one pair.
 *
 * @throws ReedError `circuit` for a coil that is coupled to more than one other
 */
export function takeCircuit(circuit: Circuit): TakenPart[] {
  const { parts, ground } = circuit;
  const paired = new Map<string, PartOf<'coupling'>>();
  for (const part of parts) {
    if (part.kind !== 'coupling') continue;
    for (const coil of part.inductors) {
      if (paired.has(coil))
        throw new ReedError(
          'circuit',
          `Coil ${quoted(coil)} is coupled to more than one other; only pairs of coils can be drawn.`,
          { part: coil },
        );
      paired.set(coil, part);
    }
  }
  return parts.flatMap((part): TakenPart[] => {
    if (part.kind === 'coupling') return [pairOf(part, parts)];
    if (paired.has(part.id)) return [];
    const found = takenBy(part, ground);
    if (found) return [{ id: part.id, kind: found.kind.kind, ...found.taken }];
    throw new ReedError('circuit', `Part ${quoted(part.id)} cannot be drawn.`, { part: part.id });
  });
}

function pairOf({ id, inductors, k }: PartOf<'coupling'>, parts: readonly Part[]): TakenPart {
  const [first, second] = inductors.map((coil) => {
    const found = parts.find((p) => p.id === coil);
    if (found?.kind === 'inductor') return found;
    throw new ReedError(
      'circuit',
      `Part ${quoted(id)} refers to an inductor ${quoted(coil)}, which the circuit does not have.`,
      { part: id },
    );
  });
  return {
    id,
    kind: 'coupled-coils',
    nets: { a1: first.a, b1: first.b, a2: second.a, b2: second.b },
    values: {
      henries: first.henries,
      second: second.henries,
      k,
      firstOhms: first.dcrOhms ?? 0,
      secondOhms: second.dcrOhms ?? 0,
    },
  };
}
