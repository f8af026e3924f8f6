import * as z from 'zod';
import { flattenCoil, flattenPeak } from './flatten';
import { pad } from './pad';
import { part } from './part';
import { section } from './section';
import type { SlotKind } from './slot-kind';
import { trapAcross, trapInLine } from './trap';

const KINDS = [section, pad, flattenCoil, flattenPeak, trapAcross, trapInLine, part] as const;

/** What can stand in a way of a crossover: one file and one line each. */
export const SLOT_KINDS = KINDS as unknown as readonly SlotKind[];

export const slotSchema = z.union(
  KINDS.map((k) => k.schema) as unknown as [(typeof KINDS)[number]['schema']],
);
export type Slot = z.infer<(typeof KINDS)[number]['schema']>;

/** The kind of a slot, which has passed its schema. */
export const slotKindOf = ({ is }: { is: string }): SlotKind =>
  SLOT_KINDS.find((k) => k.is === is)!;
