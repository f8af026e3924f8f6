import type { Circuit, Part } from '@/core/circuit/schema';
import { freshName, type MistakeKind } from './mistake';

/** Where a resistance of a source or a probe is looked for first. */
const SOURCE_OHMS = 1000;
const PROBE_OHMS = 20_000;
const PROBE_FARADS = 200e-12;

/** A generator of more resistance than was counted with. */
export const sourceLoading: MistakeKind = {
  kind: 'source-loading',
  *in(circuit) {
    for (const source of circuit.parts) {
      if (source.kind !== 'voltage-source' || !source.acVolts) continue;
      const id = freshName(circuit, 'source-resistance');
      const inner = freshName(circuit, 'generator');
      yield {
        parts: [source.id],
        circuit: {
          ...circuit,
          parts: [
            ...circuit.parts.map((p): Part => (p === source ? { ...source, plus: inner } : p)),
            { id, kind: 'resistor', a: inner, b: source.plus, ohms: SOURCE_OHMS },
          ],
        },
        free: { parts: [id], field: 'ohms' },
      };
    }
  },
};

/** An input of the meter, or a lead, that the circuit feels. */
export const probeLoading: MistakeKind = {
  kind: 'probe-loading',
  *in(circuit, probe) {
    const id = freshName(circuit, 'probe');
    const ends = { id, a: probe, b: circuit.ground };
    const across = (part: Part): Circuit => ({ ...circuit, parts: [...circuit.parts, part] });
    yield {
      parts: [],
      circuit: across({ ...ends, kind: 'resistor', ohms: PROBE_OHMS }),
      free: { parts: [id], field: 'ohms' },
    };
    yield {
      parts: [],
      circuit: across({ ...ends, kind: 'capacitor', farads: PROBE_FARADS }),
      free: { parts: [id], field: 'farads' },
    };
  },
};
