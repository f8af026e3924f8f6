import * as z from 'zod';
import { firstIssue } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { checkCouplings } from './couplings';
import { DEVICES, deviceOf } from './devices';
import { net } from './part';

const schemas = DEVICES.map((device) => device.schema);

export const partSchema = z.discriminatedUnion(
  'kind',
  schemas as unknown as [(typeof schemas)[number] & z.core.$ZodTypeDiscriminable],
);
export type Part = z.infer<(typeof schemas)[number]>;
export type PartOf<K extends Part['kind']> = Extract<Part, { kind: K }>;

/** The circuit format, version 1. Published as JSON Schema in docs/formats. */
export const circuitSchema = z.strictObject({
  format: z.literal('jaunty-reed/circuit', { error: 'must be "jaunty-reed/circuit"' }),
  version: z.literal(1, { error: 'must be 1, the only version this program reads' }),
  title: z.string().max(200).default(''),
  ground: net,
  parts: z
    .array(partSchema)
    .min(1, 'must list at least one part')
    .max(2000, 'must list at most 2000 parts'),
});

export interface Circuit {
  format: 'jaunty-reed/circuit';
  version: 1;
  title: string;
  ground: string;
  parts: Part[];
}

/** A circuit document with the fixed fields filled in. */
export function makeCircuit(parts: Part[], title = '', ground = '0'): Circuit {
  return { format: 'jaunty-reed/circuit', version: 1, title, ground, parts };
}

/**
 * Check a circuit document and read it.
 *
 * @param document parsed JSON
 * @throws ReedError `circuit`, naming the part or the field and what is wrong with it
 */
export function readCircuit(document: unknown): Circuit {
  const result = circuitSchema.safeParse(document);
  if (!result.success) {
    const { path, message } = firstIssue(result.error, document);
    const index = /^parts\[(\d+)\]/.exec(path)?.[1];
    const raw =
      index === undefined
        ? undefined
        : (document as { parts: ({ id?: unknown } | null)[] }).parts[Number(index)];
    const part = typeof raw?.id === 'string' ? raw.id : undefined;
    const what = part
      ? `Part ${quoted(part)} (${path})`
      : path === ''
        ? 'The circuit'
        : `${quoted(path)} of the circuit`;
    throw new ReedError('circuit', `${what}: ${message}.`, { part, path });
  }
  const circuit = result.data;
  const seen = new Set<string>();
  for (const { id } of circuit.parts) {
    if (seen.has(id))
      throw new ReedError('circuit', `Two parts are called ${quoted(id)}: give each its own id.`, {
        part: id,
      });
    seen.add(id);
  }
  checkCouplings(circuit.parts);
  return circuit;
}

/**
 * The circuit of a document: itself, or the one it carries as `circuit`.
 *
 * @throws ReedError as `readCircuit`
 */
export const readCircuitIn = (document: unknown): Circuit =>
  readCircuit(
    typeof document === 'object' && document !== null && 'circuit' in document
      ? document.circuit
      : document,
  );

/** Every net of a circuit but its ground, in the order the parts name them. */
export function netsOf(circuit: Circuit): string[] {
  const nets = new Set<string>();
  for (const part of circuit.parts) {
    for (const name of Object.values(deviceOf(part.kind).terminals(part))) nets.add(name);
  }
  nets.delete(circuit.ground);
  return [...nets];
}
