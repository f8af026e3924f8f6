import { ArchiveReader } from '@/core/archive/reader';
import { ReedError } from '@/core/errors';
import { Faulty, readArgs, readBytes, UsageError, type Command } from '../command';

export const archive: Command = {
  name: 'archive',
  usage: 'check FILE.zip',
  summary: 'what an archive holds, and whether all of it can be taken back in',
  run(args) {
    const { positionals } = readArgs(args, {}, 2);
    const [action, path] = positionals;
    if (action !== 'check') throw new UsageError(`there is no “${action}”; there is “check”`);
    const bytes = readBytes(path);
    let reader: ArchiveReader;
    try {
      reader = new ArchiveReader(bytes);
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      return new Faulty({ index: null, counts: {}, faults: [error.message] }, error.message);
    }
    const { index } = reader;
    const faults = reader.faults();
    const result = { index, counts: index.counts, faults };
    return faults.length === 0 ? result : new Faulty(result, faults[0]);
  },
};
