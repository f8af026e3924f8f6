import { changesBetween } from '@/core/differences/differences';
import { figuresBetween } from '@/core/differences/figures';
import { namesOfEntries } from '@/core/differences/names';
import { readSheetFile } from '@/core/sheet/file';
import { withDrivers } from '@/core/sheet/references';
import { readArgs, readJson, type Command } from '../command';

export const diff: Command = {
  name: 'diff',
  usage: 'BEFORE AFTER',
  summary: 'what two sheets differ in, in words, and the readings of both as built',
  run(args) {
    const { positionals } = readArgs(args, {}, 2);
    const [before, after] = positionals.map((path) => readSheetFile(readJson(path)));
    const entries = new Map([...namesOfEntries(before.along), ...namesOfEntries(after.along)]);
    const changes = changesBetween(before.sheet, after.sheet, entries);
    const readings = figuresBetween(
      withDrivers(before.sheet, before.along.drivers),
      withDrivers(after.sheet, after.along.drivers),
    );
    return {
      changes: changes.map(({ kind, what, before, after }) => ({ what, before, after, kind })),
      readings: readings.map(({ name, before, after }) => ({ name, before, after })),
    };
  },
};
