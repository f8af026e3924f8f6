import type { z } from 'zod';
import type { Values } from '@/core/topologies/topology';
import type { Arm } from './arms';

/** How numbers are written in the words of a slot. */
export interface SlotPrint {
  hz: (value: number) => string;
  ohms: (value: number) => string;
  db: (value: number) => string;
}

/**
 * One kind of slot of a loudspeaker’s way: what is asked of it, how it is wired, and the values that
 * meet what is asked. One kind, one file; each cites where its equations come from.
 */
export interface SlotKind<S extends { is: string } = { is: string }> {
  is: S['is'];
  schema: z.ZodType<S>;
  /** What it is called where one is added, and what it does. */
  title: string;
  about: string;
  /** What its card says. */
  name(slot: S, print: SlotPrint): string;
  arms(slot: S): readonly Arm[];
  /** @throws ReedError `design` for what no parts can do */
  values(slot: S): Values;
}

export const defineSlot = <S extends { is: string }>(kind: SlotKind<S>): SlotKind<S> => kind;
