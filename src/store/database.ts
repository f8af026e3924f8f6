import Dexie, { type Table } from 'dexie';
import type { Card } from './card';

/** A stored sheet. The document is checked and migrated whenever it is read, never trusted as it lies. */
export interface SheetRecord {
  id: string;
  updatedAt: string;
  /** Copy of the document's revision, compared in the same transaction that overwrites it. */
  revision: number;
  /** Set while a deleted sheet can still be brought back. */
  deletedAt: string | null;
  /** The sheet; of a keep that has a record of its own, only the key of that. */
  document: unknown;
  /** What it and its keeps refer to, as “takes/ID”. */
  refers?: string[];
}

/** A keep of a sheet, which is written once and never changed: a renamed one is another record. */
export interface KeepRecord {
  key: string;
  sheet: string;
  keep: unknown;
}

/** An entry of the library, checked whenever it is read. */
export interface EntryRecord {
  id: string;
  document: unknown;
}

/** A line of the book, checked whenever it is read; one that was taken out has no document. */
export interface BookRecord {
  id: string;
  /** The sheet that it is about; empty for none. */
  sheet: string;
  /** When it began, ISO. */
  at: string;
  /** Rises with every writing of a line. */
  touched: number;
  document: unknown;
}

/** A state of a sheet, packed. */
export interface StateRecord {
  key: string;
  packed: Uint8Array;
}

/** A picture that somebody put beside a line. */
export interface PictureRecord {
  id: string;
  type: string;
  bytes: Uint8Array;
}

/** Small facts about this browser's store, by name. */
export interface FactRecord {
  name: string;
  value: unknown;
}

export class ReedDatabase extends Dexie {
  sheets!: Table<SheetRecord, string>;
  /** What the shelf shows of each sheet, so that it need not read a thousand documents. */
  cards!: Table<Card, string>;
  facts!: Table<FactRecord, string>;
  keeps!: Table<KeepRecord, string>;
  takes!: Table<EntryRecord, string>;
  drivers!: Table<EntryRecord, string>;
  drawer!: Table<EntryRecord, string>;
  book!: Table<BookRecord, string>;
  states!: Table<StateRecord, string>;
  pictures!: Table<PictureRecord, string>;

  constructor(name = 'jaunty-reed') {
    super(name);
    this.version(1).stores({ sheets: 'id, updatedAt', facts: 'name' });
    // Cards are made from the sheets whenever one is missing or no longer fits: nothing to convert.
    this.version(2).stores({ cards: 'id, deletedAt' });
    // Keeps move into their table when their sheet is next stored.
    this.version(3).stores({
      sheets: 'id, updatedAt, *refers',
      keeps: 'key, sheet',
      takes: 'id',
      drivers: 'id',
      drawer: 'id',
    });
    this.version(4).stores({
      book: 'id, at, [sheet+at], touched',
      states: 'key',
      pictures: 'id',
    });
  }
}

let shared: ReedDatabase | undefined;

/** The one database of this browser. */
export function database(): ReedDatabase {
  shared ??= new ReedDatabase();
  return shared;
}
