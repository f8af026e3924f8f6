import { instead, isValued, type MistakeKind } from './mistake';

/** A bridge of solder. */
const SHORT_OHMS = 0.02;

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
