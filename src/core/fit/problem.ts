import type { Circuit } from '@/core/circuit/schema';
import type { Offer } from './offers';
import type { Wanted } from './wanted';

/** A part whose value is to be chosen. */
export interface FitPart {
  /** In the circuit. */
  id: string;
  /** Field of its value there: ohms, farads, henries. */
  field: string;
  /** The value it would have if any could be had. */
  exact: number;
  /** Single parts it can be, rising. At least one. */
  singles: readonly Offer[];
  /** Pairs it can be that come near a value; absent where it is to be one part. */
  pairsNear?: (value: number) => readonly Offer[];
  /** It is set with a trimmer: pairs are what it is, at any value, and singles but places to look. */
  trimmed?: true;
}

/** Numbers that are read off a circuit, and how far they miss what is wanted of them. */
export interface WantedReadings {
  /** Each in its own unit, by the values of the parts; NaN where there is none. */
  read(values: readonly number[]): readonly number[];
  /** The sum of what each lies outside its room, as a part of that room; nought where all are met. */
  missed(read: readonly number[]): number;
  /** How far each lies from the middle of what is wanted of it, as a part of its room, signed. */
  off(read: readonly number[]): number[];
}

/** Choosing the values of a circuit so that its level is as wanted. */
export interface FitProblem {
  /** As it is built: real op-amps, source and load; with exact values where they are to be chosen. */
  circuit: Circuit;
  probe: string;
  wanted: Wanted;
  parts: readonly FitPart[];
  /** What is wanted besides; worked out of the best few choices only. */
  readings?: WantedReadings;
  /** Whether what a choice takes is there to be taken. */
  enough?: (offers: readonly Offer[]) => boolean;
}

/** A choice of values, with how good it is. */
export interface Choice {
  /** By part. */
  offers: readonly Offer[];
  /** Greatest error where it is judged, dB. */
  worstDb: number;
  /** The same with its unevenness. */
  cost: number;
  /** How far its readings miss. */
  missed: number;
}
