import { BOOK_LIMITS } from '@/core/book/entry';
import { ReedError } from '@/core/errors';
import { changeEntry, entryOf } from './book';
import { database, type PictureRecord, type ReedDatabase } from './database';
import { newId } from './ids';

/** Kinds of pictures that a line takes, by their first bytes. */
const SIGNS: readonly (readonly [type: string, sign: readonly number[]])[] = [
  ['image/png', [0x89, 0x50, 0x4e, 0x47]],
  ['image/jpeg', [0xff, 0xd8, 0xff]],
  ['image/webp', [0x52, 0x49, 0x46, 0x46]],
];

/** Most bytes of one picture. */
export const MOST_PICTURE_BYTES = 8 * 1024 * 1024;

/** What kind of picture some bytes are, by how they begin; nothing for anything else. */
export const typeOfPicture = (bytes: Uint8Array): string | undefined =>
  SIGNS.find(([, sign]) => sign.every((b, i) => bytes[i] === b))?.[0];

/**
 * Put a picture beside a line: both or neither.
 *
 * @throws ReedError `document` for what is no picture, `range` where there are too many or it is too large
 */
export async function addPicture(
  entry: string,
  bytes: Uint8Array,
  db: ReedDatabase = database(),
): Promise<void> {
  const type = typeOfPicture(bytes);
  if (type === undefined)
    throw new ReedError('document', 'That is no picture: a PNG, JPEG or WebP file was expected.');
  if (bytes.length > MOST_PICTURE_BYTES)
    throw new ReedError('range', 'The picture is larger than 8 MB: make it smaller first.');
  await db.transaction('rw', db.book, db.pictures, async () => {
    const { pictures } = await entryOf(entry, db);
    if (pictures.length >= BOOK_LIMITS.pictures)
      throw new ReedError('range', `A line holds at most ${BOOK_LIMITS.pictures} pictures.`);
    const id = newId('p');
    await db.pictures.put({ id, type, bytes });
    await changeEntry(entry, () => ({ pictures: [...pictures, id] }), db);
  });
}

/** Take a picture away from a line. */
export async function removePicture(
  entry: string,
  id: string,
  db: ReedDatabase = database(),
): Promise<void> {
  await db.transaction('rw', db.book, db.pictures, async () => {
    await changeEntry(entry, (e) => ({ pictures: e.pictures.filter((p) => p !== id) }), db);
    await db.pictures.delete(id);
  });
}

export const pictureOf = (
  id: string,
  db: ReedDatabase = database(),
): Promise<PictureRecord | undefined> => db.pictures.get(id);
