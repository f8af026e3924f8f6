import * as z from 'zod';
import { checkBounds } from '@/core/document/bounded';
import { firstIssue } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { coilSchema } from '@/core/speaker/coils/coil';
import { coupled } from '@/core/speaker/coils/mutual';
import { quoted } from '@/core/text';
import { readArgs, readJson, type Command } from '../command';

const pairSchema = z.object({ coils: z.tuple([coilSchema, coilSchema]) });

/** What two air coils share. */
export const coils: Command = {
  name: 'coils',
  usage: 'FILE',
  summary: 'inductances of two air coils and what they share, from their sizes and places',
  run(args) {
    const { positionals } = readArgs(args, {}, 1);
    const document = readJson(positionals[0]);
    checkBounds(document);
    const read = pairSchema.safeParse(document);
    if (!read.success) {
      const { path, message } = firstIssue(read.error, document);
      const where = path === '' ? ': it' : ` at ${quoted(path)}:`;
      throw new ReedError('document', `The coils cannot be read${where} ${message}.`, { path });
    }
    const [a, b] = read.data.coils;
    return coupled(a, b);
  },
};
