import { readTable } from '@/core/speaker/tables/read-table';
import { readArgs, readText, type Command } from '../command';

/** What an importer reads of a table. */
export const table: Command = {
  name: 'table',
  usage: 'FILE',
  summary: 'rows of a table of level or impedance, and each refused line with its reason',
  run(args) {
    const { positionals } = readArgs(args, {}, 1);
    return readTable(readText(positionals[0]));
  },
};
