import { ReedError } from '@/core/errors';
import { proposedSplits, type ChosenUnit, type ProposedSplit } from '@/core/crossover/propose';
import type { DriverEntry } from '@/core/library/driver';
import type { Alignment } from '@/core/slots/section';

/** What a crossover is to begin with, as far as it was said. */
export interface Beginning {
  /** A driver for each way, from the lowest up; none where it was not chosen yet. */
  driverIds: readonly (string | null)[];
  /** Splits that were typed, by the way below them; the others are proposed. */
  typedHz: Readonly<Record<number, number>>;
  alignment: Alignment;
  order: number;
  each: boolean;
}

export const BEGINNING: Beginning = {
  driverIds: [null, null],
  typedHz: {},
  alignment: 'linkwitz-riley',
  order: 4,
  each: false,
};

/** The drivers that were chosen, from the lowest way up. */
export const unitsOf = ({ driverIds }: Beginning, drivers: readonly DriverEntry[]): ChosenUnit[] =>
  driverIds.flatMap((id) => {
    const found = drivers.find((d) => d.id === id);
    return found ? [{ id: found.id, name: found.name, model: found.model }] : [];
  });

/** @throws ReedError `range` naming the first way that has no driver */
export function checkChosen({ driverIds }: Beginning): void {
  const missing = driverIds.indexOf(null);
  if (missing >= 0)
    throw new ReedError('range', `Choose a driver for way ${missing + 1}, or leave the way out.`);
}

/** Where ways are divided: as typed, and as proposed elsewhere. */
export const splitsOf = ({ typedHz }: Beginning, units: readonly ChosenUnit[]): ProposedSplit[] =>
  proposedSplits(units).map((split, i) => ({ ...split, hz: typedHz[i] ?? split.hz }));

/** Without one way. What was typed of its edges goes with it. */
export const withoutRow = (beginning: Beginning, row: number): Beginning => ({
  ...beginning,
  driverIds: beginning.driverIds.filter((_, i) => i !== row),
  typedHz: {},
});
