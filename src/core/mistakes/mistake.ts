import { netsOf, type Circuit, type Part } from '@/core/circuit/schema';
import { valueOf, withValue } from '@/core/circuit/values';

/** One way in which a circuit may have been got wrong. */
export interface Mistaken {
  /** What was got wrong, by part ids. */
  parts: readonly string[];
  /** The circuit as it then is. */
  circuit: Circuit;
  /** Of a mistake by any amount: the value that is not known, of all these parts together. */
  free?: { parts: readonly string[]; field: string };
}

/** A kind of mistake that people make. */
export interface MistakeKind {
  kind: string;
  /** Everything in the circuit that could have been got wrong in this way. */
  in(circuit: Circuit, probe: string, highestHz: number): Iterable<Mistaken>;
}

/** The circuit with one part in another’s place. */
export const withPart = (circuit: Circuit, part: Circuit['parts'][number]): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p) => (p.id === part.id ? part : p)),
});

/** A value that is got by misreading, and the field it stands in. */
export const VALUE_FIELDS = { resistor: 'ohms', capacitor: 'farads', inductor: 'henries' } as const;
export type Valued = Extract<Circuit['parts'][number], { kind: keyof typeof VALUE_FIELDS }>;

export const isValued = (part: Circuit['parts'][number]): part is Valued =>
  part.kind in VALUE_FIELDS;

export const valueOfPart = (part: Valued): number => valueOf(part, VALUE_FIELDS[part.kind]);
export const withPartValue = (part: Valued, value: number): Part =>
  withValue(part, VALUE_FIELDS[part.kind], value);

/** The circuit with values that are off, each by its factor. */
export const withFactors = (
  circuit: Circuit,
  factors: Readonly<Record<string, number>>,
): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p) =>
    isValued(p) && p.id in factors ? withPartValue(p, valueOfPart(p) * factors[p.id]) : p,
  ),
});

/** The circuit with nothing but a resistance where a part should be. */
export const instead = (circuit: Circuit, { id, a, b }: Valued, ohms: number): Circuit => ({
  ...circuit,
  parts: circuit.parts.flatMap((p): Part[] => {
    if (p.kind === 'coupling' && p.inductors.includes(id)) return [];
    return [p.id === id ? { id, kind: 'resistor', a, b, ohms } : p];
  }),
});

/** What a board leaves between two pads with nothing in them. */
export const OPEN_OHMS = 1e11;
/** A bridge of solder. */
export const SHORT_OHMS = 0.02;

/** A name for a net or a part that the circuit does not use. */
export function freshName(circuit: Circuit, name: string): string {
  const used = new Set(circuit.parts.map((p) => p.id).concat(netsOf(circuit), circuit.ground));
  let fresh = name;
  while (used.has(fresh)) fresh = `${fresh}'`;
  return fresh;
}
