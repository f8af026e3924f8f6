import type { DriverEntry } from '@/core/library/driver';
import { database, type ReedDatabase } from './database';
import { madeDemo, madeDrivers } from './demo';
import { newId, now } from './ids';
import { unchecked } from './records';

/**
 * Put the demo sheets on the shelf the first time this browser opens the product: in one go, as they
 * were made and tested, since a first screen may be waiting for one of them. Their cards are made by
 * whoever shows cards.
 */
export async function seedDemo(db: ReedDatabase = database()): Promise<void> {
  if (await db.facts.get('demo-seeded')) return;
  const [sheets, drivers] = await Promise.all([madeDemo(now()), madeDrivers()]);
  await db.transaction('rw', db.sheets, db.facts, db.drivers, async () => {
    if (await db.facts.get('demo-seeded')) return;
    await putDrivers(drivers, db);
    const there = await db.sheets.bulkGet(sheets.map((s) => s.id));
    await db.sheets.bulkPut(sheets.filter((_, i) => !there[i]).map((s) => unchecked(s)));
    await db.facts.put({ name: 'demo-seeded', value: true });
  });
}

/**
 * The demo's drivers as they were made. One that was changed is first copied under a new id: sheets
 * that it was changed for can be pointed at that.
 */
export async function putDrivers(drivers: readonly DriverEntry[], db: ReedDatabase): Promise<void> {
  for (const driver of drivers) {
    const record = await db.drivers.get(driver.id);
    const same = record && JSON.stringify(record.document) === JSON.stringify(driver);
    if (record && !same) {
      const id = newId();
      const document = { ...(record.document as DriverEntry), id };
      await db.drivers.put({ id, document: { ...document, name: `${document.name} (yours)` } });
    }
    if (!same) await db.drivers.put({ id: driver.id, document: driver });
  }
}
