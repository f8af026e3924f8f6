import type { BoundedKind } from '@/core/quantity/bounds';
import type { ValuedKind } from './instantiate';

/** Which of a sheet's choices of series a kind of part is bought from; null: any value can be set. */
export type SeriesChoice = 'resistors' | 'capacitors' | 'inductors' | null;

interface PartKind {
  /** What its value is measured in: decides how it is read, printed and bounded. */
  quantity: BoundedKind;
  noun: string;
  series: SeriesChoice;
}

/** What is to be known of each kind of part that has a value. */
export const PART_KINDS: Record<ValuedKind, PartKind> = {
  resistor: { quantity: 'ohms', noun: 'resistor', series: 'resistors' },
  capacitor: { quantity: 'farads', noun: 'capacitor', series: 'capacitors' },
  inductor: { quantity: 'henries', noun: 'coil', series: 'inductors' },
  // Set by a bias current, which is no part of a series.
  transconductor: { quantity: 'siemens', noun: 'transconductor', series: null },
};
