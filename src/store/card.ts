import type { BoardState } from '@/core/plan/tasks';
import type { WhatItDoes } from '@/core/sheet/summary';

/** What the shelf shows of one sheet. Made from its record, never edited on its own. */
export interface Card {
  id: string;
  /** Empty where the title is not legible. */
  title: string;
  /** ISO; empty where the date is not legible. */
  updatedAt: string;
  deletedAt: string | null;
  demo: boolean;
  /** What the sheet is for; absent where it cannot be read. */
  does?: WhatItDoes;
  /** Title and everything it does, in small letters, for searching. */
  words: string;
  /** Its boards; absent of cards that were made before these were told. */
  boards?: CardBoard[];
  /** Why it cannot be read. */
  problem?: string;
  /** What the curve is computed from; a curve of another key is not shown. */
  curveKey: string;
  curve?: CardCurve;
  /** Fingerprint of the record that the card was made from. */
  print: string;
}

/** A board of a sheet, as far as shelf, search and plan need to know it. */
export interface CardBoard extends BoardState {
  note: string;
}

/** Level over a log frequency axis, for the small picture. */
export interface CardCurve {
  key: string;
  frequenciesHz: Float32Array;
  levelDb: Float32Array;
}
