import * as z from 'zod';
import { positive } from '@/core/circuit/part';
import { defineSlot } from './slot-kind';

const schema = z.strictObject({
  is: z.literal('part'),
  part: z.enum(['resistor', 'capacitor', 'coil']),
  at: z.enum(['line', 'across']),
  /** Ohms, farads or henries. */
  value: positive,
});
export type PartSlot = z.infer<typeof schema>;

const ID = { resistor: 'R1', capacitor: 'C1', coil: 'L1' } as const;

/** A single part, in the line or across it. */
export const part = defineSlot<PartSlot>({
  is: 'part',
  schema,
  title: 'Single part',
  about: 'A resistor, capacitor or coil, in line or across',
  name: (slot) =>
    `${slot.part[0].toUpperCase()}${slot.part.slice(1)} ${slot.at === 'line' ? 'in line' : 'across'}`,
  arms: (slot) => [{ at: slot.at, join: 'row', parts: [[slot.part, ID[slot.part]]] }],
  values: (slot) => ({ [ID[slot.part]]: slot.value }),
});
