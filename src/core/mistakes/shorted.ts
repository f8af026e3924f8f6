import { instead, isValued, SHORT_OHMS, type MistakeKind } from './mistake';

/** A part that is bridged. */
export const shorted: MistakeKind = {
  kind: 'shorted',
  *in(circuit) {
    for (const part of circuit.parts.filter(isValued))
      yield {
        parts: [part.id],
        circuit: instead(circuit, part, SHORT_OHMS),
      };
  },
};
