import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { archiveIndexSchema, ARCHIVE_VERSION } from '@/core/archive/archive-index';
import { bookEntrySchema } from '@/core/book/entry';
import { circuitSchema } from '@/core/circuit/schema';
import { askFileSchema } from '@/core/design/ask';
import { LIBRARY } from '@/core/library';
import { speakerSchema } from '@/core/speaker/document';
import { SHEET_VERSION, sheetSchema } from '@/core/sheet/schema';

/** Write the JSON Schemas of the open formats to docs/formats; with --check, only compare. */
const along = z
  .strictObject({
    takes: z.array(LIBRARY.takes.schema).optional(),
    drivers: z.array(LIBRARY.drivers.schema).optional(),
    drawer: z.array(LIBRARY.drawer.schema).optional(),
  })
  .optional();
const FORMATS = {
  circuit: { version: 1, schema: circuitSchema },
  ask: { version: 1, schema: askFileSchema },
  sheet: { version: SHEET_VERSION, schema: sheetSchema.extend({ along }) },
  speaker: { version: 1, schema: speakerSchema },
  take: { version: 1, schema: LIBRARY.takes.schema },
  driver: { version: 1, schema: LIBRARY.drivers.schema },
  stock: { version: 1, schema: LIBRARY.drawer.schema },
  'book-entry': { version: 1, schema: bookEntrySchema },
  archive: { version: ARCHIVE_VERSION, schema: archiveIndexSchema },
};
const check = process.argv.includes('--check');
let stale = 0;
for (const [name, { version, schema }] of Object.entries(FORMATS)) {
  const path = join(import.meta.dirname, '..', 'docs', 'formats', `${name}.schema.json`);
  const text = `${JSON.stringify({ $id: `jaunty-reed/${name}/${version}`, title: `jaunty-reed/${name}, version ${version}`, ...z.toJSONSchema(schema, { io: 'input' }) }, null, 2)}\n`;
  if (!check) {
    writeFileSync(path, text);
    continue;
  }
  let present = '';
  try {
    present = readFileSync(path, 'utf8');
  } catch {
    // Missing counts as stale.
  }
  if (present !== text) {
    console.error(
      `docs/formats/${name}.schema.json is not what the code says: run npm run schemas`,
    );
    stale++;
  }
}
process.exitCode = stale > 0 ? 1 : 0;
