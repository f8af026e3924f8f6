import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { messageOf, ReedError } from '@/core/errors';
import { withoutPause } from '@/core/lenses/layers';
import { markdownOf, picturesOf } from '@/core/report/markdown';
import { reportOf } from '@/core/report/sheet-report';
import { readSheetFile } from '@/core/sheet/file';
import { Later, readArgs, readJson, required, writeOut, type Command } from '../command';

export const report: Command = {
  name: 'report',
  usage: 'SHEET --out DIR',
  summary: 'a sheet as a document: Markdown with its pictures',
  run(args) {
    const { values, positionals } = readArgs(args, { out: { type: 'string' } }, 1);
    const out = required('out', values.out);
    const { sheet, along } = readSheetFile(readJson(positionals[0]));
    return new Later(write(out, sheet, along));
  },
};

async function write(
  out: string,
  sheet: Parameters<typeof reportOf>[0]['sheet'],
  library: Parameters<typeof reportOf>[0]['library'],
): Promise<{ title: string; files: string[]; sections: string[] }> {
  const at = new Date().toISOString();
  const made = await reportOf({ sheet, library, lines: [], at }, withoutPause);
  try {
    mkdirSync(out, { recursive: true });
  } catch (error) {
    throw new ReedError('document', `“${out}” cannot be made: ${messageOf(error)}.`);
  }
  const pictures = picturesOf(made).map(({ name, svg }) => [`${name}.svg`, svg] as const);
  const files = [['report.md', markdownOf(made)] as const, ...pictures];
  for (const [name, content] of files) writeOut(join(out, name), content);
  return {
    title: made.title,
    files: files.map(([name]) => join(out, name)),
    sections: made.sections.map((s) => s.title),
  };
}
