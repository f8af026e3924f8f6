import { isValued, valueOfPart, withPart, withPartValue, type MistakeKind } from './mistake';

/** Values closer than this are as good as the same. */
const SAME = 0.05;

/** Two parts of a kind, each where the other belongs. */
export const swapped: MistakeKind = {
  kind: 'swapped',
  *in(circuit) {
    const parts = circuit.parts.filter(isValued);
    for (const [i, one] of parts.entries())
      for (const other of parts.slice(i + 1)) {
        const [a, b] = [valueOfPart(one), valueOfPart(other)];
        if (one.kind !== other.kind || Math.abs(Math.log(a / b)) < SAME) continue;
        yield {
          parts: [one.id, other.id],
          circuit: withPart(withPart(circuit, withPartValue(one, b)), withPartValue(other, a)),
        };
      }
  },
};
