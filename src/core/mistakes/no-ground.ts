import type { Circuit, Part } from '@/core/circuit/schema';
import { freshName, isValued, OPEN_OHMS, type MistakeKind } from './mistake';

/** Of more parts than these no pairs are looked at. */
const MOST_PAIRED = 12;

/**
 * Parts that are joined where they should meet ground, and do not reach it: each alone, any two, and
 * all of them, as where the wire from the board’s common to the bench is not there.
 */
export const noGround: MistakeKind = {
  kind: 'no-ground',
  *in(circuit) {
    const grounded = circuit.parts
      .filter(isValued)
      .filter((p) => (p.a === circuit.ground) !== (p.b === circuit.ground))
      .map((p) => p.id);
    const pairs =
      grounded.length > MOST_PAIRED
        ? []
        : grounded.flatMap((one, i) => grounded.slice(i + 1).map((other) => [one, other]));
    const sets = [...grounded.map((id) => [id]), ...pairs];
    if (grounded.length > 2) sets.push(grounded);
    for (const parts of sets) yield { parts, circuit: lifted(circuit, parts) };
  },
};

function lifted(circuit: Circuit, ids: readonly string[]): Circuit {
  const { ground } = circuit;
  const common = freshName(circuit, 'common');
  const moved = (net: string) => (net === ground ? common : net);
  return {
    ...circuit,
    parts: [
      ...circuit.parts.map((p): Part =>
        isValued(p) && ids.includes(p.id) ? { ...p, a: moved(p.a), b: moved(p.b) } : p,
      ),
      { id: freshName(circuit, 'stray'), kind: 'resistor', a: common, b: ground, ohms: OPEN_OHMS },
    ],
  };
}
