import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { ReedError } from '@/core/errors';
import {
  ARCHIVE_LIMITS,
  ARCHIVE_VERSION,
  INDEX_NAME,
  README_NAME,
  type ArchivedFile,
  type ArchiveIndex,
} from './archive-index';
import { crc32 } from './crc32';
import { ARCHIVE_KINDS, type ArchivedKind, type ArchivedOf } from './kinds';

/** The endings of picture files. */
const PICTURE_ENDINGS: Readonly<Record<string, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/webp': 'webp',
};

/**
 * Writes an archive piece by piece: nothing of it is held but what waits for its file to be full.
 *
 * @example
 * const writer = new ArchiveWriter(at, (chunk) => chunks.push(chunk));
 * writer.add('take', take, take.name);
 * const index = writer.end();
 */
export class ArchiveWriter {
  private readonly zip: Zip;
  private readonly files: ArchivedFile[] = [];
  private readonly counts: Partial<Record<ArchivedFile['kind'], number>> = {};
  private readonly numbers = new Map<ArchivedFile['kind'], number>();
  private readonly waiting = new Map<ArchivedKind, unknown[]>();

  /**
   * @param madeAt ISO
   * @param sink takes the bytes of the file, in order
   */
  constructor(
    private readonly madeAt: string,
    sink: (chunk: Uint8Array<ArrayBuffer>) => void,
  ) {
    this.zip = new Zip((error, chunk) => {
      if (error) throw error;
      sink(chunk);
    });
  }

  /** @param title what it is called, where it has a file of its own */
  add<K extends ArchivedKind>(kind: K, one: ArchivedOf[K], title?: string): void {
    const waiting = this.waiting.get(kind) ?? [];
    waiting.push(one);
    this.waiting.set(kind, waiting);
    const { each } = ARCHIVE_KINDS[kind];
    if (waiting.length >= each) this.write(kind, each === 1 ? title : undefined);
  }

  addPicture(id: string, type: string, bytes: Uint8Array): void {
    const ending = PICTURE_ENDINGS[type] ?? 'png';
    // Pictures are packed by nature.
    this.put(
      'picture',
      this.nameFor('pictures', 'picture', undefined, ending),
      bytes,
      1,
      id,
      false,
    );
  }

  /** @returns what was written; nothing can be added after it */
  end(): ArchiveIndex {
    for (const kind of this.waiting.keys()) this.write(kind);
    const { madeAt, counts, files } = this;
    const index: ArchiveIndex = {
      format: 'jaunty-reed/archive',
      version: ARCHIVE_VERSION,
      madeAt,
      counts,
      files,
    };
    this.file(INDEX_NAME, strToU8(JSON.stringify(index, null, 1)), true);
    this.file(README_NAME, strToU8(readmeOf(index)), true);
    this.zip.end();
    return index;
  }

  private write(kind: ArchivedKind, title?: string): void {
    const waiting = this.waiting.get(kind) ?? [];
    if (waiting.length === 0) return;
    this.waiting.set(kind, []);
    const { folder, each } = ARCHIVE_KINDS[kind];
    const bytes = strToU8(JSON.stringify(each === 1 ? waiting[0] : waiting, null, 1));
    const name = this.nameFor(folder, kind, title, 'json');
    this.put(kind, name, bytes, waiting.length, title, true);
  }

  private nameFor(
    folder: string,
    kind: ArchivedFile['kind'],
    title: string | undefined,
    ending: string,
  ): string {
    const number = (this.numbers.get(kind) ?? 0) + 1;
    this.numbers.set(kind, number);
    const slug = slugOf(title ?? '');
    return `${folder}/${String(number).padStart(4, '0')}${slug === '' ? '' : `-${slug}`}.${ending}`;
  }

  private put(
    kind: ArchivedFile['kind'],
    name: string,
    bytes: Uint8Array,
    holds: number,
    title: string | undefined,
    packed: boolean,
  ): void {
    if (bytes.length > ARCHIVE_LIMITS.fileBytes)
      throw new ReedError('range', `“${title ?? name}” is too large for an archive.`);
    if (this.files.length >= ARCHIVE_LIMITS.files)
      throw new ReedError('range', 'There is more here than one archive holds.');
    this.counts[kind] = (this.counts[kind] ?? 0) + holds;
    const told = title === undefined || title === '' ? {} : { title: title.slice(0, 200) };
    this.files.push({ name, kind, holds, bytes: bytes.length, crc32: crc32(bytes), ...told });
    this.file(name, bytes, packed);
  }

  private file(name: string, bytes: Uint8Array, packed: boolean): void {
    const file = packed ? new ZipDeflate(name, { level: 6 }) : new ZipPassThrough(name);
    file.mtime = this.madeAt;
    this.zip.add(file);
    file.push(bytes, true);
  }
}

/** “Speech band, 2nd try” as part of a file’s name: “speech-band-2nd-try”. */
function slugOf(title: string): string {
  return title
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
    .replace(/-+$/, '');
}

/** What an archive holds, for somebody who opens it without the program. */
function readmeOf({ madeAt, counts, files }: ArchiveIndex): string {
  const lines = (Object.keys(ARCHIVE_KINDS) as ArchivedKind[]).flatMap((kind) => {
    const { folder, plural, each } = ARCHIVE_KINDS[kind];
    const count = counts[kind] ?? 0;
    return count === 0
      ? []
      : [
          `${folder}/  ${count} ${plural}, ${each === 1 ? 'a file each' : `up to ${each} in a file`}`,
        ];
  });
  const titles = files.flatMap(({ kind, name, title }) =>
    kind === 'sheet' ? [`  ${name}  ${title ?? ''}`] : [],
  );
  return [
    `Everything that was kept in Jaunty Reed on ${madeAt}, as plain JSON.`,
    'The same program takes it back in; any other can read it. Values are in SI units, and the unit',
    'stands in the name of each field. index.json lists every file with its size and checksum.',
    '',
    ...lines,
    ...(counts.picture ? [`pictures/  ${counts.picture} pictures beside lines of the book`] : []),
    '',
    'The sheets:',
    ...titles,
    '',
  ].join('\n');
}
