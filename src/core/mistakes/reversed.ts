import type { Circuit, Part } from '@/core/circuit/schema';
import { withPart, type MistakeKind } from './mistake';

/** A part that is in its place the wrong way round. */
export const reversed: MistakeKind = {
  kind: 'reversed',
  *in(circuit) {
    for (const part of circuit.parts) {
      const turned = turnedRound(part);
      if (turned) yield { parts: [part.id], circuit: withPart(circuit, turned) };
    }
    yield* reversedCoils(circuit);
  },
};

/** The same part the wrong way round; undefined where that makes no difference. */
export function turnedRound(part: Part): Part | undefined {
  switch (part.kind) {
    case 'diode':
      return { ...part, anode: part.cathode, cathode: part.anode };
    case 'transistor':
      return { ...part, collector: part.emitter, emitter: part.collector };
    case 'potentiometer':
      return { ...part, a: part.b, b: part.a };
    case 'ota':
    case 'transconductor':
      return { ...part, inPlus: part.inMinus, inMinus: part.inPlus };
    default:
      return undefined;
  }
}

/** A coil turned round shares its flux with the others the other way. */
function* reversedCoils(circuit: Circuit) {
  const coupled = new Set(circuit.parts.flatMap((p) => (p.kind === 'coupling' ? p.inductors : [])));
  for (const coil of coupled)
    yield {
      parts: [coil],
      circuit: {
        ...circuit,
        parts: circuit.parts.map((p): Part =>
          p.kind === 'coupling' && p.inductors.includes(coil) ? { ...p, k: -p.k } : p,
        ),
      },
    };
}
