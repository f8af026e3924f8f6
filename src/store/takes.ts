import { readEntry } from '@/core/library/entry';
import { takeKind, type Take } from '@/core/library/take';
import { ReedError } from '@/core/errors';
import { database, type ReedDatabase } from './database';

/** Most takes that are kept. */
export const TAKES_LIMIT = 5_000;

/**
 * Put a take in; checked first, so that it can be read again.
 *
 * @throws ReedError `document` for a field that cannot be, `range` where there are too many
 */
export async function putTake(take: Take, db: ReedDatabase = database()): Promise<void> {
  const checked = readEntry(takeKind, take);
  await db.transaction('rw', db.takes, async () => {
    if (!(await db.takes.get(take.id)) && (await db.takes.count()) >= TAKES_LIMIT)
      throw new ReedError(
        'range',
        `At most ${TAKES_LIMIT} takes are kept: remove some, or delete a sheet that has many.`,
      );
    await db.takes.put({ id: take.id, document: checked });
  });
}
