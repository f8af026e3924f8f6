import { strFromU8, unzipSync } from 'fflate';
import { ReedError } from '@/core/errors';
import { parseBounded } from '@/core/document/bounded';
import { quoted } from '@/core/text';
import {
  ARCHIVE_LIMITS,
  FILE_NAME,
  INDEX_NAME,
  README_NAME,
  readArchiveIndex,
  type ArchivedFile,
  type ArchiveIndex,
} from './archive-index';
import { crc32 } from './crc32';
import { ARCHIVE_KINDS, ARCHIVED_KINDS, type ArchivedKind, type ArchivedOf } from './kinds';

/** Files that are unpacked at once, and of how many bytes together. */
const SLICE = { files: 50, bytes: 24 * 1024 * 1024 };

const refuse = (why: string) => new ReedError('document', `This archive is not taken: ${why}.`);

interface Listed {
  name: string;
  originalSize: number;
}

/**
 * Reads an archive. Its directory and index are checked before anything is unpacked; a file that is
 * not as the index says is refused, and so is the archive.
 *
 * @throws ReedError `document` saying why it is not taken, from every method
 */
export class ArchiveReader {
  readonly index: ArchiveIndex;

  constructor(private readonly bytes: Uint8Array) {
    if (bytes.length > ARCHIVE_LIMITS.bytes)
      throw refuse(`it is larger than ${ARCHIVE_LIMITS.bytes / 1024 ** 3} GB`);
    const listed = this.directory();
    const [index] = this.unpack(new Map([[INDEX_NAME, null]])).values();
    this.index = readArchiveIndex(strFromU8(index));
    this.checkListed(listed);
  }

  /** Everything of one kind, checked, with the file that it came from. */
  *all<K extends ArchivedKind>(kind: K): Generator<{ one: ArchivedOf[K]; file: ArchivedFile }> {
    const { read, idOf, each, noun } = ARCHIVE_KINDS[kind];
    const seen = new Set<string>();
    for (const { file, bytes } of this.files(kind)) {
      const document = this.json(bytes, file);
      const list: unknown[] = each === 1 ? [document] : Array.isArray(document) ? document : [];
      if (list.length !== file.holds)
        throw refuse(`${quoted(file.name)} does not hold what the index says`);
      for (const item of list) {
        let one: ArchivedOf[K];
        try {
          one = read(item);
        } catch (error) {
          if (!(error instanceof ReedError)) throw error;
          throw new ReedError(
            'document',
            `This archive is not taken: ${quoted(file.name)}: ${error.message}`,
          );
        }
        const id = idOf(one);
        if (seen.has(id)) throw refuse(`${quoted(file.name)} has a second ${noun} ${quoted(id)}`);
        seen.add(id);
        yield { one, file };
      }
    }
  }

  /** Every picture by its id. */
  *pictures(): Generator<{ id: string; bytes: Uint8Array<ArrayBuffer>; file: ArchivedFile }> {
    const seen = new Set<string>();
    for (const { file, bytes } of this.files('picture')) {
      const id = file.title ?? '';
      if (id === '' || seen.has(id))
        throw refuse(`${quoted(file.name)} is a picture without an id of its own`);
      seen.add(id);
      yield { id, bytes, file };
    }
  }

  /** Read all of it and keep nothing: what is wrong, the first thing of each kind; nothing where all is well. */
  faults(): string[] {
    const found: string[] = [];
    const looked = (all: Iterable<unknown>) => {
      try {
        for (const one of all) void one;
      } catch (error) {
        if (!(error instanceof ReedError)) throw error;
        found.push(error.message);
      }
    };
    for (const kind of ARCHIVED_KINDS) looked(this.all(kind));
    looked(this.pictures());
    return found;
  }

  private json(bytes: Uint8Array, file: ArchivedFile): unknown {
    try {
      const text = strFromU8(bytes);
      // What could not be read where the archive was made may be anything, and is never looked into.
      if (file.kind === 'damaged') return JSON.parse(text) as unknown;
      return parseBounded(text, 'a file of an archive was expected');
    } catch (error) {
      if (!(error instanceof ReedError)) throw refuse(`${quoted(file.name)} is no JSON`);
      throw new ReedError(
        'document',
        `This archive is not taken: ${quoted(file.name)}: ${error.message}`,
      );
    }
  }

  /** Names and sizes of all files, as the zip’s own directory has them; nothing is unpacked. */
  private directory(): Listed[] {
    const listed: Listed[] = [];
    const names = new Set<string>();
    let all = 0;
    this.zipped(({ name, originalSize, compression }) => {
      if (name !== INDEX_NAME && name !== README_NAME && !FILE_NAME.test(name))
        throw refuse(`it holds ${quoted(name)}, which is no name that a file of an archive has`);
      if (names.has(name)) throw refuse(`it holds ${quoted(name)} twice`);
      if (compression !== 0 && compression !== 8)
        throw refuse(`${quoted(name)} is packed in a way that is not known here`);
      if (originalSize > ARCHIVE_LIMITS.fileBytes)
        throw refuse(`${quoted(name)} would unpack to more than any file of an archive has`);
      if (listed.length > ARCHIVE_LIMITS.files) throw refuse('it holds far too many files');
      names.add(name);
      all += originalSize;
      if (all > ARCHIVE_LIMITS.allBytes) throw refuse('it would unpack to far too much');
      listed.push({ name, originalSize });
      return false;
    });
    if (!names.has(INDEX_NAME))
      throw refuse(`it has no ${INDEX_NAME}, so that it was not made by this program`);
    return listed;
  }

  /** The zip’s directory and the index must tell of the same files. */
  private checkListed(listed: readonly Listed[]): void {
    const sizes = new Map(listed.map((f) => [f.name, f.originalSize]));
    const told = new Set([INDEX_NAME, README_NAME]);
    const counts = new Map<string, number>();
    for (const { name, bytes, kind, holds } of this.index.files) {
      if (told.has(name)) throw refuse(`its index lists ${quoted(name)} twice`);
      told.add(name);
      if (!sizes.has(name)) throw refuse(`${quoted(name)} is missing`);
      if (sizes.get(name) !== bytes)
        throw refuse(`${quoted(name)} is not as long as the index says`);
      const folder = kind === 'picture' ? 'pictures' : ARCHIVE_KINDS[kind].folder;
      if (!name.startsWith(`${folder}/`))
        throw refuse(`${quoted(name)} does not lie where its kind belongs`);
      counts.set(kind, (counts.get(kind) ?? 0) + holds);
    }
    const unknown = listed.find((f) => !told.has(f.name));
    if (unknown) throw refuse(`it holds ${quoted(unknown.name)}, which its index does not list`);
    for (const kind of [...ARCHIVED_KINDS, 'picture' as const])
      if ((this.index.counts[kind] ?? 0) !== (counts.get(kind) ?? 0))
        throw refuse(`its index counts other ${kind}s than it lists`);
  }

  /** The files of a kind, some at a time. */
  private *files(
    kind: ArchivedFile['kind'],
  ): Generator<{ file: ArchivedFile; bytes: Uint8Array<ArrayBuffer> }> {
    const own = this.index.files.filter((f) => f.kind === kind);
    for (let from = 0; from < own.length;) {
      let [to, bytes] = [from, 0];
      while (
        to < own.length &&
        to - from < SLICE.files &&
        (to === from || bytes + own[to].bytes <= SLICE.bytes)
      )
        bytes += own[to++].bytes;
      const slice = new Map(own.slice(from, to).map((f) => [f.name, f]));
      for (const [name, content] of this.unpack(slice))
        yield { file: slice.get(name)!, bytes: content };
      from = to;
    }
  }

  /** Unpack some files, each held against what the index says of it. */
  private unpack(
    wanted: ReadonlyMap<string, ArchivedFile | null>,
  ): Map<string, Uint8Array<ArrayBuffer>> {
    const found = this.zipped(({ name }) => wanted.has(name));
    return new Map(
      [...wanted].map(([name, file]) => {
        const content = found[name] as Uint8Array<ArrayBuffer> | undefined;
        if (!content) throw refuse(`${quoted(name)} is missing`);
        if (file && (content.length !== file.bytes || crc32(content) !== file.crc32))
          throw refuse(`${quoted(name)} is damaged: its checksum is another`);
        return [name, content];
      }),
    );
  }

  private zipped(
    filter: (file: { name: string; originalSize: number; compression: number }) => boolean,
  ) {
    try {
      return unzipSync(this.bytes, { filter });
    } catch (error) {
      if (error instanceof ReedError) throw error;
      throw refuse('it is no zip file, or one that was cut off or damaged');
    }
  }
}
