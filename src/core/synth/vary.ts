import { deviceOf } from '@/core/circuit/devices';
import type { Circuit, Part } from '@/core/circuit/schema';
import { withValue } from '@/core/circuit/values';
import { firstIssue } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';

/** One number of one part, by names. */
interface Field {
  part: string;
  field: string;
}

/** A circuit with another value of the numbers that are varied. */
export type Varied = (value: number) => Circuit;

/**
 * Numbers of parts that move together: all have the same value.
 *
 * @param names “part.field” each: any field of a part, or of its model, that holds a number
 * @returns the circuit for a value
 * @throws ReedError `circuit` for a part or field that is not there; what is returned throws `range`
 *   for a value that the field cannot have
 */
export function varying(circuit: Circuit, names: readonly string[]): Varied {
  const fields = names.map((name) => fieldOf(circuit, name));
  return (value) => ({
    ...circuit,
    parts: circuit.parts.map((part) =>
      fields.reduce((p, { part: id, field }) => (id === p.id ? changed(p, field, value) : p), part),
    ),
  });
}

function fieldOf(circuit: Circuit, name: string): Field {
  const ids = circuit.parts.map((p) => p.id);
  const dot = name.lastIndexOf('.');
  const [part, field] = [name.slice(0, Math.max(0, dot)), name.slice(dot + 1)];
  if (dot < 1 || field === '')
    throw new ReedError(
      'circuit',
      `${quoted(name)} names no number: give a part and its field, as ${ids[0]}.ohms.`,
    );
  const found = circuit.parts.find((p) => p.id === part);
  if (!found)
    throw new ReedError(
      'circuit',
      `The circuit has no part ${quoted(part)}; there are ${ids.slice(0, 12).join(', ')}.`,
      { part },
    );
  // A field that takes no number at all is refused before anything is solved.
  const was = numberIn(found, field);
  if (was === undefined && !acceptsNumber(found, field))
    throw new ReedError(
      'circuit',
      `Part ${quoted(part)} has no number ${quoted(field)}; it has ${numbersOf(found).join(', ') || 'none'}.`,
      { part },
    );
  return { part, field };
}

function changed(part: Part, field: string, value: number): Part {
  const next: unknown =
    numberIn(part, field) === undefined
      ? { ...part, [field]: value }
      : withValue(part, field, value);
  const parsed = deviceOf(part.kind).schema.safeParse(next);
  if (parsed.success) return parsed.data as Part;
  const { message } = firstIssue(parsed.error, next);
  throw new ReedError('range', `${part.id}.${field} cannot be ${value}: it ${message}.`, {
    part: part.id,
  });
}

/** Optional fields that a file left out may be given too. */
const acceptsNumber = (part: Part, field: string): boolean =>
  field !== 'id' && deviceOf(part.kind).schema.safeParse({ ...part, [field]: 1 }).success;

function numberIn(part: Part, field: string): number | undefined {
  for (const holder of holdersOf(part)) {
    const value = holder[field];
    if (typeof value === 'number') return value;
  }
  return undefined;
}

const numbersOf = (part: Part): string[] =>
  holdersOf(part).flatMap((holder) => Object.keys(holder).filter((k) => isNumber(holder[k])));

/** The part, its model, and what the model holds. */
function holdersOf(part: Part): Record<string, unknown>[] {
  const own = part as unknown as Record<string, unknown>;
  const nested = (from: Record<string, unknown>) =>
    ['model', 'supply'].flatMap((nest) => {
      const inner = from[nest];
      return isHolder(inner) ? [inner] : [];
    });
  const inner = nested(own);
  return [own, ...inner, ...inner.flatMap(nested)];
}

const isNumber = (x: unknown): x is number => typeof x === 'number';
const isHolder = (x: unknown): x is Record<string, unknown> => typeof x === 'object' && x !== null;
