import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { messageOf, ReedError } from '@/core/errors';
import { withoutPause } from '@/core/lenses/layers';
import { markdownOf, picturesOf } from '@/core/report/markdown';
import { PAPER_NAMES, type PaperKind } from '@/core/report/papers';
import { reportOf, type ReportSubject } from '@/core/report/sheet-report';
import { readSheetFile } from '@/core/sheet/file';
import {
  Later,
  readArgs,
  readJson,
  required,
  UsageError,
  writeOut,
  type Command,
} from '../command';

export const report: Command = {
  name: 'report',
  usage: 'SHEET --out DIR [--paper report|data]',
  summary: 'a sheet as a document, or as a data page: Markdown with its pictures',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { out: { type: 'string' }, paper: { type: 'string' } },
      1,
    );
    const out = required('out', values.out);
    const paper = values.paper ?? 'report';
    if (!isPaper(paper))
      throw new UsageError(`--paper must be ${Object.keys(PAPER_NAMES).join(' or ')}`);
    const { sheet, along } = readSheetFile(readJson(positionals[0]));
    return new Later(
      write(out, paper, { sheet, library: along, lines: [], at: new Date().toISOString() }),
    );
  },
};

const isPaper = (text: string): text is PaperKind => text in PAPER_NAMES;

async function write(
  out: string,
  paper: PaperKind,
  subject: ReportSubject,
): Promise<{ title: string; files: string[]; sections: string[] }> {
  const made = await reportOf(subject, withoutPause, paper);
  try {
    mkdirSync(out, { recursive: true });
  } catch (error) {
    throw new ReedError('document', `“${out}” cannot be made: ${messageOf(error)}.`);
  }
  const pictures = picturesOf(made).map(({ name, svg }) => [`${name}.svg`, svg] as const);
  const files = [
    [`${paper === 'report' ? 'report' : 'data-page'}.md`, markdownOf(made)] as const,
    ...pictures,
  ];
  for (const [name, content] of files) writeOut(join(out, name), content);
  return {
    title: made.title,
    files: files.map(([name]) => join(out, name)),
    sections: made.sections.map((s) => s.title),
  };
}
