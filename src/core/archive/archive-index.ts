import * as z from 'zod';
import { firstIssue } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { ARCHIVED_KINDS } from './kinds';

/** How much an archive may hold: more is none of this program’s. */
export const ARCHIVE_LIMITS = {
  /** Of the whole file. */
  bytes: 1024 * 1024 * 1024,
  files: 60_000,
  /** Of one file in it, unpacked. */
  fileBytes: 24 * 1024 * 1024,
  /** Of all of them, unpacked. */
  allBytes: 4 * 1024 * 1024 * 1024,
} as const;

export const ARCHIVE_VERSION = 1;
export const INDEX_NAME = 'index.json';
export const README_NAME = 'README.txt';

/** Names that files of an archive may have: a folder and a plain name, and nothing that leads elsewhere. */
export const FILE_NAME = /^[a-z]{3,12}\/\d{4,6}(?:-[a-z0-9-]{1,60})?\.(?:json|png|jpg|webp)$/;

const fileSchema = z.strictObject({
  name: z.string().regex(FILE_NAME, 'is no name that a file of an archive has'),
  kind: z.enum([...ARCHIVED_KINDS, 'picture']),
  /** How many things of its kind it holds. */
  holds: z.int().min(1).max(5000),
  bytes: z.int().min(0).max(ARCHIVE_LIMITS.fileBytes),
  /** As zip files have it. */
  crc32: z.string().regex(/^[0-9a-f]{8}$/, 'must be eight hexadecimal digits'),
  /** What it is, for people; of a picture its id. */
  title: z.string().max(200).optional(),
});

export const archiveIndexSchema = z.strictObject({
  format: z.literal('jaunty-reed/archive', { error: 'must be "jaunty-reed/archive"' }),
  version: z.literal(ARCHIVE_VERSION),
  madeAt: z.iso.datetime({ error: 'must be a date and time in ISO form' }),
  /** How many of each kind there are. */
  counts: z.partialRecord(z.enum([...ARCHIVED_KINDS, 'picture']), z.int().min(0)),
  files: z.array(fileSchema).max(ARCHIVE_LIMITS.files),
});

export type ArchiveIndex = z.infer<typeof archiveIndexSchema>;
export type ArchivedFile = ArchiveIndex['files'][number];

/** @throws ReedError `document` saying what is wrong with the index */
export function readArchiveIndex(text: string): ArchiveIndex {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch {
    throw new ReedError('document', 'The archive’s index is no JSON: the file is damaged.');
  }
  const { format, version } = (document ?? {}) as { format?: unknown; version?: unknown };
  if (format === 'jaunty-reed/archive' && typeof version === 'number' && version > ARCHIVE_VERSION)
    throw new ReedError(
      'document',
      `The archive is of version ${version} and this program reads up to ${ARCHIVE_VERSION}: update the program.`,
    );
  const result = archiveIndexSchema.safeParse(document);
  if (result.success) return result.data;
  const { path, message } = firstIssue(result.error, document);
  throw new ReedError(
    'document',
    path === ''
      ? `The archive’s index cannot be read: it ${message}.`
      : `The archive’s index cannot be read at ${quoted(path)}: ${message}.`,
    { path },
  );
}
