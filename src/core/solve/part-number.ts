import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';

/** One number of one part of a circuit, as it is varied. */
export interface PartNumber {
  part: string;
  /** Field of the part or of its model. */
  field: string;
  /** Its place among the values of an analysis. */
  parameter: number;
  value: number;
}

/** Numbers that go from nought to one, evenly; all others go by ratio. */
const FRACTIONS = new Set(['turn', 'k']);
export const isFraction = (field: string): boolean => FRACTIONS.has(field);

/** What of a part is meant where nothing more is said, when it is not its first number. */
const MEANT = ['turn', 'ohms', 'farads', 'henries', 'siemens', 'gain', 'biasAmps', 'k'];

/**
 * A number of a part by its name: the part alone (its resistance, capacitance, …, a potentiometer’s
 * turn), or “part.field” for any other.
 *
 * @throws ReedError `circuit` for a part or field that is not there
 */
export function partNumber({ system, values }: AcAnalysis, name: string): PartNumber {
  const whole = system.places.get(name);
  const dot = name.lastIndexOf('.');
  const [part, places, asked] = whole
    ? [name, whole, undefined]
    : [name.slice(0, dot), system.places.get(name.slice(0, Math.max(0, dot))), name.slice(dot + 1)];
  if (!places || places.size === 0)
    throw new ReedError(
      'circuit',
      `The circuit has no part ${quoted(name)} with a value; there are ${[...system.places.keys()].slice(0, 12).join(', ')}.`,
      { part: name },
    );
  const field = asked ?? MEANT.find((f) => places.has(f)) ?? [...places.keys()][0];
  const parameter = places.get(field);
  if (parameter === undefined)
    throw new ReedError(
      'circuit',
      `Part ${quoted(part)} has no ${quoted(field)}; there are ${[...places.keys()].join(', ')}.`,
      { part },
    );
  return { part, field, parameter, value: values[parameter] };
}
