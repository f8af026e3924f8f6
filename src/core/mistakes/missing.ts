import { instead, isValued, OPEN_OHMS, type MistakeKind } from './mistake';

/** A part that was left out, or has a joint that does not conduct. */
export const missing: MistakeKind = {
  kind: 'missing',
  *in(circuit) {
    for (const part of circuit.parts.filter(isValued))
      yield {
        parts: [part.id],
        circuit: instead(circuit, part, OPEN_OHMS),
      };
  },
};
