import { valueOf, withValue } from '@/core/circuit/values';
import { netsOf, type Circuit, type Part } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import {
  instead,
  isValued,
  OPEN_OHMS,
  SHORT_OHMS,
  VALUE_FIELDS,
  valueOfPart,
  withPart,
  withPartValue,
} from '@/core/mistakes/mistake';
import { turnedRound } from '@/core/mistakes/reversed';
import { parseQuantity } from '@/core/quantity/parse';
import { quoted } from '@/core/text';

/** What is wrong with a board. */
export type Fault =
  | { is: 'factor'; part: string; factor: number }
  | { is: 'value'; part: string; value: number }
  | { is: 'missing' | 'shorted' | 'reversed'; part: string }
  | { is: 'swapped'; parts: [string, string] };

const WORDS = ['missing', 'shorted', 'reversed'] as const;

/**
 * A fault as it is typed: `C2=*1.3` (of its value), `C2=47n` (instead of it), `C2=missing`,
 * `C2=shorted`, `D1=reversed`, `R1=R2` (each in the other's place). Of an op-amp the number is its
 * bandwidth.
 *
 * @throws ReedError `range` or `quantity` naming what cannot be
 */
export function readFault(text: string, circuit: Circuit): Fault {
  const [, part, what] = /^\s*([^=\s]+)\s*=\s*(.+?)\s*$/.exec(text) ?? [];
  if (part === undefined)
    throw new ReedError(
      'range',
      `${quoted(text)} is no fault: write C2=*1.3, C2=47n, C2=missing, C2=shorted, D1=reversed or R1=R2.`,
    );
  const own = partOf(circuit, part);
  const word = WORDS.find((w) => w === what);
  if (word) return { is: word, part };
  if (circuit.parts.some((p) => p.id === what)) return swap(own, partOf(circuit, what));
  fieldOf(own);
  if (what.startsWith('*')) {
    const factor = Number(what.slice(1));
    if (!(factor > 0 && factor <= 1e6 && what.length > 1))
      throw new ReedError(
        'range',
        `${quoted(text)}: the factor must be above 0 and at most a million.`,
      );
    return { is: 'factor', part, factor };
  }
  const value = parseQuantity(what, QUANTITIES[fieldOf(own)]);
  if (!(value > 0)) throw new ReedError('range', `${quoted(text)}: the value must be above zero.`);
  return { is: 'value', part, value };
}

function swap(one: Part, other: Part): Fault {
  if (one.id === other.id || one.kind !== other.kind || !isValued(one))
    throw new ReedError(
      'range',
      `${quoted(one.id)} and ${quoted(other.id)} cannot be swapped: two different resistors, capacitors or coils can.`,
      { part: one.id },
    );
  return { is: 'swapped', parts: [one.id, other.id] };
}

/** The parts that are not as they should be. */
export const faultParts = (fault: Fault): readonly string[] =>
  fault.is === 'swapped' ? fault.parts : [fault.part];

/** The circuit with a fault in it. */
export function withFault(circuit: Circuit, fault: Fault): Circuit {
  switch (fault.is) {
    case 'swapped': {
      const [one, other] = fault.parts.map((id) => partOf(circuit, id));
      if (!isValued(one) || !isValued(other) || one.kind !== other.kind) return circuit;
      return withPart(
        withPart(circuit, withPartValue(one, valueOfPart(other))),
        withPartValue(other, valueOfPart(one)),
      );
    }
    case 'missing':
    case 'shorted': {
      const part = partOf(circuit, fault.part);
      if (!isValued(part)) throw cannot(part, fault.is);
      return instead(circuit, part, fault.is === 'missing' ? OPEN_OHMS : SHORT_OHMS);
    }
    case 'reversed': {
      const part = partOf(circuit, fault.part);
      const turned = turnedRound(part);
      if (!turned) throw cannot(part, fault.is);
      return withPart(circuit, turned);
    }
    case 'value':
      return withPart(
        circuit,
        withNumber(partOf(circuit, fault.part), () => fault.value),
      );
    case 'factor': {
      const part = partOf(circuit, fault.part);
      return withPart(
        circuit,
        withNumber(part, (now) => {
          if (now !== undefined) return now * fault.factor;
          throw new ReedError(
            'range',
            `${quoted(part.id)} is ideal: say its bandwidth instead of a factor, as ${part.id}=100k.`,
            { part: part.id },
          );
        }),
      );
    }
  }
}

const aKind = ({ kind }: Part): string => `${/^[aeiou]/.test(kind) ? 'an' : 'a'} ${kind}`;

const cannot = (part: Part, what: string) =>
  new ReedError('range', `${quoted(part.id)} is ${aKind(part)}: it cannot be ${what}.`, {
    part: part.id,
  });

function partOf(circuit: Circuit, id: string): Part {
  const part = circuit.parts.find((p) => p.id === id);
  if (part) return part;
  const known = circuit.parts.map((p) => p.id);
  throw new ReedError(
    'range',
    `There is no part ${quoted(id)}${netsOf(circuit).includes(id) ? ': that is a net' : ''}; there are ${known.slice(0, 12).join(', ')}${known.length > 12 ? ' and more' : ''}.`,
    { part: id },
  );
}

const QUANTITIES = {
  ohms: 'ohms',
  farads: 'farads',
  henries: 'henries',
  gainBandwidthHz: 'hertz',
} as const;

/** The number that a fault is about. */
function fieldOf(part: Part): keyof typeof QUANTITIES {
  if (isValued(part)) return VALUE_FIELDS[part.kind];
  if (part.kind === 'potentiometer') return 'ohms';
  if (part.kind === 'op-amp') return 'gainBandwidthHz';
  throw new ReedError(
    'range',
    `${quoted(part.id)} is ${aKind(part)}: faults with a number are of resistors, capacitors, coils, potentiometers and op-amps.`,
    { part: part.id },
  );
}

const DC_GAIN_DB = 100;

function withNumber(part: Part, change: (now: number | undefined) => number): Part {
  if (part.kind === 'op-amp' && part.model === 'ideal')
    return { ...part, model: { gainBandwidthHz: change(undefined), dcGainDb: DC_GAIN_DB } };
  const field = fieldOf(part);
  return withValue(part, field, change(valueOf(part, field)));
}
