import { z } from 'zod';
import { ReedError } from '@/core/errors';
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

/** The words of the first issue that a schema found, as "path: message". */
export function firstIssue(
  error: z.ZodError,
  document: unknown,
): { path: string; message: string } {
  let issue = error.issues[0];
  let path = issue.path;
  while (issue.code === 'invalid_union' && issue.errors.length > 0 && issue.errors[0].length > 0) {
    // Of a union's branches, report the one that got furthest before failing.
    const branch = [...issue.errors].sort(
      (a, b) => (b[0]?.path.length ?? 0) - (a[0]?.path.length ?? 0),
    )[0];
    if (branch[0].path.length === 0) break;
    issue = branch[0];
    path = [...path, ...issue.path];
  }
  const where = path
    .map((step) => (typeof step === 'number' ? `[${step}]` : `.${String(step)}`))
    .join('')
    .replace(/^\./, '');
  let message = issue.message;
  if (issue.code === 'invalid_union' && 'discriminator' in issue && issue.discriminator) {
    const given = valueAt(document, path);
    message = `${JSON.stringify(given) ?? 'nothing'} is not a known ${issue.discriminator}`;
  } else if (issue.code === 'unrecognized_keys') {
    message = `does not know the field ${issue.keys.map((k) => `“${k}”`).join(', ')}`;
  } else if (issue.code === 'invalid_type' && valueAt(document, path) === undefined) {
    message = 'is missing';
  }
  return { path: where, message };
}

function valueAt(document: unknown, path: PropertyKey[]): unknown {
  return path.reduce<unknown>(
    (node, step) => (node as Record<PropertyKey, unknown> | undefined)?.[step],
    document,
  );
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
        : (valueAt(document, ['parts', Number(index)]) as { id?: unknown } | undefined);
    const part = typeof raw?.id === 'string' ? raw.id : undefined;
    const what = part
      ? `Part “${part}” (${path})`
      : path === ''
        ? 'The circuit'
        : `“${path}” of the circuit`;
    throw new ReedError('circuit', `${what}: ${message}.`, { part, path });
  }
  const circuit = result.data;
  const seen = new Set<string>();
  for (const { id } of circuit.parts) {
    if (seen.has(id))
      throw new ReedError('circuit', `Two parts are called “${id}”: give each its own id.`, {
        part: id,
      });
    seen.add(id);
  }
  return circuit;
}

/** Every net of a circuit but its ground, in the order the parts name them. */
export function netsOf(circuit: Circuit): string[] {
  const nets = new Set<string>();
  for (const part of circuit.parts) {
    for (const name of Object.values(deviceOf(part.kind).terminals(part))) nets.add(name);
  }
  nets.delete(circuit.ground);
  return [...nets];
}
