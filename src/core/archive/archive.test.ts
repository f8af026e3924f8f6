import { strToU8, unzipSync, zipSync } from 'fflate';
import fc from 'fast-check';
import type { BookEntry } from '@/core/book/entry';
import { keptState, keyOfText, textOfState } from '@/core/book/state';
import { ReedError } from '@/core/errors';
import { DRIVER, STOCK, TAKE } from '@/core/library/testing';
import { demoMade } from '@/testing/demo';
import { ARCHIVE_LIMITS, INDEX_NAME, type ArchiveIndex } from './archive-index';
import { crc32 } from './crc32';
import type { ArchivedKind, ArchivedOf } from './kinds';
import { ArchiveReader } from './reader';
import { ArchiveWriter } from './writer';

const AT = '2026-11-28T18:00:00.000Z';
const [FIRST, SECOND] = demoMade(AT);

const LINE: BookEntry = {
  format: 'jaunty-reed/book-entry',
  version: 1,
  id: 'e1',
  name: 'Speech',
  kind: 'note',
  at: AT,
  until: AT,
  changes: [],
  steps: [],
  note: 'The hum is the lamp.',
  pictures: ['p1'],
};
const KEPT = keptState(FIRST);
const PNG = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 1, 2, 3]);

const WHOLE: { [K in ArchivedKind]: ArchivedOf[K][] } = {
  sheet: [
    { sheet: FIRST, deletedAt: null },
    { sheet: SECOND, deletedAt: AT },
  ],
  take: [TAKE],
  driver: [DRIVER],
  part: [STOCK],
  line: Array.from({ length: 450 }, (_, i) => ({ ...LINE, id: `e${i}` })),
  state: [{ key: keyOfText(textOfState(KEPT)), state: KEPT }],
  damaged: [{ table: 'sheets', id: 'x', document: { deep: 'x'.repeat(9000) } }],
  settings: [{ name: 'preferences', value: { theme: 'dark' } }],
};

const titleOf = (one: ArchivedOf[ArchivedKind]): string =>
  typeof one === 'object' && 'sheet' in one && typeof one.sheet === 'object'
    ? one.sheet.title
    : 'Ein Ding/..';

function archive(): Uint8Array {
  const chunks: Uint8Array[] = [];
  const writer = new ArchiveWriter(AT, (chunk) => chunks.push(chunk));
  for (const kind of Object.keys(WHOLE) as ArchivedKind[])
    for (const one of WHOLE[kind]) writer.add(kind, one, titleOf(one));
  writer.addPicture('p1', 'image/png', PNG);
  writer.end();
  return Uint8Array.from(Buffer.concat(chunks));
}
const GOOD = archive();

/** Why it is refused, by its directory or by what it holds; empty where it is taken. */
function refusal(bytes: Uint8Array): string {
  try {
    return new ArchiveReader(bytes).faults().join(' ');
  } catch (error) {
    expect(error).toBeInstanceOf(ReedError);
    return (error as ReedError).message;
  }
}

test('what was put in comes out, in order, and the index tells of all of it', () => {
  const reader = new ArchiveReader(GOOD);
  for (const kind of Object.keys(WHOLE) as ArchivedKind[])
    expect([...reader.all(kind)].map((f) => f.one)).toEqual(WHOLE[kind]);
  expect([...reader.pictures()].map(({ id, bytes }) => [id, bytes])).toEqual([['p1', PNG]]);
  expect(reader.index.counts).toEqual({
    ...Object.fromEntries(Object.entries(WHOLE).map(([kind, all]) => [kind, all.length])),
    picture: 1,
  });
  expect(refusal(GOOD)).toBe('');
});

test('it is an ordinary zip that people can read', () => {
  const files = unzipSync(GOOD);
  const text = new TextDecoder().decode(files['README.txt']);
  expect(text).toContain(FIRST.title);
  expect(text).toMatch(/takes\/ {2}1 take/);
  expect(Object.keys(files)).toContain('sheets/0001-rumble-filter-for-the-record-deck.json');
  expect(crc32(strToU8('123456789'))).toBe('cbf43926');
});

/** The archive with some of its files changed, and its index made to fit unless it is what is wrong. */
function changed(
  change: (files: Record<string, Uint8Array>, index: ArchiveIndex) => void,
  fit = true,
): Uint8Array {
  const files: Record<string, Uint8Array> = { ...unzipSync(GOOD) };
  const index = JSON.parse(new TextDecoder().decode(files[INDEX_NAME])) as ArchiveIndex;
  change(files, index);
  if (fit)
    for (const file of index.files) {
      const content = files[file.name] as Uint8Array | undefined;
      if (content) Object.assign(file, { bytes: content.length, crc32: crc32(content) });
    }
  if (INDEX_NAME in files) files[INDEX_NAME] = strToU8(JSON.stringify(index));
  return zipSync(files);
}
const json = (document: unknown) => strToU8(JSON.stringify(document));
const SHEET_FILE = 'sheets/0001-rumble-filter-for-the-record-deck.json';

test.each<[string, Uint8Array, RegExp]>([
  ['nothing', new Uint8Array(0), /no zip file/],
  ['a text', strToU8('hello'), /no zip file/],
  ['a zip of something else', zipSync({ 'a.txt': strToU8('a') }), /“a.txt”, which is no name/],
  ['an empty zip', zipSync({}), /no index.json/],
  [
    'a path that leads out',
    changed((f) => (f['../evil.json'] = json(1))),
    /“..\/evil.json”, which is no name/,
  ],
  ['a path from the root', changed((f) => (f['/etc/passwd'] = json(1))), /no name that a file/],
  [
    'a path the other way',
    changed((f) => (f['sheets\\0001.json'] = json(1))),
    /no name that a file/,
  ],
  [
    'a name of the language',
    zipSync(Object.fromEntries([['__proto__/0001.json', json(1)]])),
    /no name that a file/,
  ],
  [
    'a file that is not listed',
    changed((f) => (f['takes/0009.json'] = json(TAKE))),
    /does not list/,
  ],
  ['a file that is gone', changed((f) => delete f['takes/0001-ein-ding.json']), /is missing/],
  ['no index', changed((f) => delete f[INDEX_NAME]), /no index.json/],
  ['a newer version', changed((_, i) => Object.assign(i, { version: 2 })), /version 2.*update/],
  ['no version', changed((_, i) => Object.assign(i, { version: 'one' })), /“version”/],
  ['another format', changed((_, i) => Object.assign(i, { format: 'x' })), /“format”/],
  ['wrong counts', changed((_, i) => (i.counts.take = 7)), /counts other takes/],
  ['a file listed twice', changed((_, i) => i.files.push(i.files[0])), /lists .* twice/],
  [
    'a changed letter',
    changed((f) => (f[SHEET_FILE] = f[SHEET_FILE].map((b, i) => (i === 99 ? b ^ 1 : b))), false),
    /checksum/,
  ],
  ['a longer file', changed((f) => (f[SHEET_FILE] = json({ x: 1 })), false), /not as long/],
  [
    'a sheet that is none',
    changed((f) => (f[SHEET_FILE] = json({ sheet: { format: 'x' }, deletedAt: null }))),
    /sheets.*This is not a sheet/,
  ],
  [
    'a sheet of a newer program',
    changed((f) => (f[SHEET_FILE] = json({ sheet: { ...FIRST, version: 99 }, deletedAt: null }))),
    /version 99/,
  ],
  ['no JSON', changed((f) => (f[SHEET_FILE] = strToU8('{"sheet":'))), /not JSON/],
  [
    'too deep',
    changed((f) => (f[SHEET_FILE] = strToU8('['.repeat(200) + ']'.repeat(200)))),
    /inside each other/,
  ],
  ['the same sheet twice', changed((f, i) => (f[i.files[1].name] = f[SHEET_FILE])), /second sheet/],
  [
    'fewer lines than told',
    changed((f) => (f['book/0001.json'] = json([LINE]))),
    /does not hold what/,
  ],
  [
    'a picture without an id',
    changed((_, i) => delete i.files.find((f) => f.kind === 'picture')!.title),
    /without an id/,
  ],
  [
    'a bomb',
    changed((f) => (f['takes/0001-ein-ding.json'] = new Uint8Array(ARCHIVE_LIMITS.fileBytes + 1))),
    /unpack to more/,
  ],
])('%s is refused', (_, bytes, words) => {
  expect(refusal(bytes)).toMatch(words);
});

test('a file that unpacks to more than its directory says is refused', () => {
  // The directory tells of 10 bytes of what is far more: as bombs do.
  const bytes = changed(() => undefined);
  const text = Buffer.from(bytes);
  const at = text.indexOf(
    Buffer.from(SHEET_FILE),
    text.indexOf(Buffer.from('PK\u0001\u0002', 'latin1')),
  );
  text.writeUInt32LE(10, at - 46 + 24);
  expect(refusal(text)).toMatch(/not as long|damaged|no zip/);
});

test('cut off anywhere, or with any byte another, it is refused or whole', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: GOOD.length - 1 }), (length) => {
      expect(refusal(GOOD.slice(0, length))).not.toBe('');
    }),
    { numRuns: 250, seed: 1 },
  );
  const whole = JSON.stringify(contents(GOOD));
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: GOOD.length - 1 }),
      fc.integer({ min: 1, max: 255 }),
      (at, by) => {
        const bytes = GOOD.map((b, i) => (i === at ? b ^ by : b));
        // A date or a note in the zip’s own headers says nothing of what it holds.
        if (refusal(bytes) === '') expect(JSON.stringify(contents(bytes))).toBe(whole);
      },
    ),
    { numRuns: 250, seed: 2 },
  );
});

function contents(bytes: Uint8Array) {
  const reader = new ArchiveReader(bytes);
  return (Object.keys(WHOLE) as ArchivedKind[]).map((kind) =>
    [...reader.all(kind)].map((f) => f.one as unknown),
  );
}
