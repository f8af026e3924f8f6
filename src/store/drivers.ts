import { ReedError } from '@/core/errors';
import { LIBRARY } from '@/core/library';
import type { DriverEntry } from '@/core/library/driver';
import { readEntry } from '@/core/library/entry';
import { database, type ReedDatabase } from './database';

/** The loudspeaker units of this browser that can be read, by name. */
export async function driversOfLibrary(db: ReedDatabase = database()): Promise<DriverEntry[]> {
  const records = await db.drivers.toArray();
  return records
    .flatMap(({ id, document }) => {
      try {
        return [{ ...(readEntry(LIBRARY.drivers, document) as DriverEntry), id }];
      } catch (error) {
        if (!(error instanceof ReedError)) throw error;
        return [];
      }
    })
    .sort((a, b) => a.name.localeCompare(b.name));
}
