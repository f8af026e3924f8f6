/** A low-pass ladder from source to load; shunt capacitors alternate with series coils. */
export interface Ladder {
  /** Elements in order: farads and henries by turns, `first` says which comes first. */
  first: 'shunt' | 'series';
  elements: number[];
  /** A capacitor across each series coil that makes a zero; 0 where there is none. */
  traps: number[];
  /** Load resistance over source resistance (over 1 ohm for a ladder driven from no resistance). */
  loadOhms: number;
}
