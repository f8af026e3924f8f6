import { isValued, valueOfPart, withPart, withPartValue, type MistakeKind } from './mistake';

/** 47k for 4k7, or 470: one ring or one figure misread. */
export const decade: MistakeKind = {
  kind: 'decade',
  *in(circuit) {
    for (const part of circuit.parts.filter(isValued))
      for (const factor of [10, 0.1])
        yield {
          parts: [part.id],
          circuit: withPart(circuit, withPartValue(part, valueOfPart(part) * factor)),
        };
  },
};
