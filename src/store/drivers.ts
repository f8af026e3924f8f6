import { ReedError } from '@/core/errors';
import { driverEntryKind, type DriverEntry } from '@/core/library/driver';
import { readEntry } from '@/core/library/entry';
import { quoted } from '@/core/text';
import { database, type ReedDatabase } from './database';
import { newId } from './ids';

/** Every loudspeaker unit that can be read, and what is to be said of the rest. */
export interface DriversContents {
  entries: DriverEntry[];
  problems: { id: string; problem: string }[];
}

/** Most units that are kept. */
export const DRIVERS_LIMIT = 2_000;

/** The loudspeaker units of this browser, by name. */
export async function driversContents(db: ReedDatabase = database()): Promise<DriversContents> {
  const found: DriversContents = { entries: [], problems: [] };
  for (const { id, document } of await db.drivers.toArray()) {
    try {
      found.entries.push({ ...readEntry(driverEntryKind, document), id });
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      found.problems.push({ id, problem: error.message });
    }
  }
  found.entries.sort((a, b) => a.name.localeCompare(b.name) || a.id.localeCompare(b.id));
  return found;
}

/** Those that can be read. */
export const driversOfLibrary = async (db: ReedDatabase = database()): Promise<DriverEntry[]> =>
  (await driversContents(db)).entries;

/**
 * Put a unit in, or another state of one that is there; checked first, so that it can be read again.
 *
 * @throws ReedError `document` for a field that cannot be, `range` where there are too many
 */
export async function putDriver(entry: DriverEntry, db: ReedDatabase = database()): Promise<void> {
  const checked = readEntry(driverEntryKind, entry);
  await db.transaction('rw', db.drivers, async () => {
    if (!(await db.drivers.get(entry.id)) && (await db.drivers.count()) >= DRIVERS_LIMIT)
      throw new ReedError('range', `At most ${DRIVERS_LIMIT} drivers are kept: delete one first.`);
    await db.drivers.put({ id: entry.id, document: checked });
  });
}

/** A unit of the same kind under an id and name of its own. */
export async function copyDriver(
  entry: DriverEntry,
  name: string,
  db: ReedDatabase = database(),
): Promise<string> {
  const id = newId();
  await putDriver({ ...entry, id, name }, db);
  return id;
}

/**
 * Delete a unit that no sheet ends in.
 *
 * @throws ReedError `range` naming how many sheets do
 */
export async function removeDriver(
  { id, name }: Pick<DriverEntry, 'id' | 'name'>,
  db: ReedDatabase = database(),
): Promise<void> {
  await db.transaction('rw', db.drivers, db.sheets, async () => {
    const sheets = await db.sheets.where('refers').equals(`drivers/${id}`).count();
    if (sheets > 0)
      throw new ReedError(
        'range',
        `${quoted(name)} stays: ${sheets === 1 ? 'a sheet ends' : `${sheets} sheets end`} in it. Choose another driver there first.`,
      );
    await db.drivers.delete(id);
  });
}
