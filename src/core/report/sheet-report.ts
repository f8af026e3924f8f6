import type { BookEntry } from '@/core/book/entry';
import type { Pause } from '@/core/lenses/layers';
import type { Library } from '@/core/library';
import { messageOf, ReedError } from '@/core/errors';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { PAPER_NAMES, type PaperKind } from './papers';
import { text, type Report, type ReportBlock, type ReportSection } from './report';
import { asked } from './sections/asked';
import { boards } from './sections/boards';
import { curves } from './sections/curves';
import { decisions } from './sections/decisions';
import { figures } from './sections/figures';
import { partsNeeded } from './sections/parts-needed';
import { schematics } from './sections/schematics';
import { testPlan } from './sections/test-plan';
import { usingIt } from './sections/using-it';
import { valuesAndWhy } from './sections/values-and-why';
import { measured, type Measured } from './measured';

/** What a report is made from. */
export interface ReportSubject {
  sheet: Sheet;
  library: Library;
  /** Lines of the book about it, latest first. */
  lines: readonly BookEntry[];
  /** When it is made, ISO. */
  at: string;
}

/** What a section is made from: the sheet as it is solved, and what was worked out of it once. */
export interface SectionSubject extends ReportSubject, Measured {}

/** A section of a report: one file and one line in the list below. */
export interface SectionKind {
  title: string;
  /** What stands in it; nothing where it has nothing to say of this sheet. */
  write: (subject: SectionSubject, pause: Pause) => ReportBlock[] | Promise<ReportBlock[]>;
}

/** The sections of each paper, in their order. */
const SECTIONS: Readonly<Record<PaperKind, readonly SectionKind[]>> = {
  report: [asked, schematics, curves, valuesAndWhy, partsNeeded, testPlan, boards, decisions],
  data: [usingIt, figures, curves],
};

/**
 * One sheet as a document: what was asked for, its schematic, curves with their spread, values and
 * why, parts with what they have to stand, test plan, boards and what was decided.
 *
 * A section that cannot be written says why; the others stand.
 */
export async function reportOf(
  subject: ReportSubject,
  pause: Pause,
  paper: PaperKind = 'report',
): Promise<Report> {
  const sheet = withDrivers(subject.sheet, subject.library.drivers);
  const found: SectionSubject = {
    ...subject,
    sheet,
    ...(await measured(sheet, subject.library, pause)),
  };
  const sections: ReportSection[] = [];
  for (const { title, write } of SECTIONS[paper]) {
    await pause();
    let blocks: ReportBlock[];
    try {
      blocks = await write(found, pause);
    } catch (error) {
      if (!(error instanceof ReedError) || error.code === 'stopped') throw error;
      blocks = [text(messageOf(error))];
    }
    if (blocks.length > 0) sections.push({ title, blocks });
  }
  return {
    title: sheet.title,
    subtitle: `${PAPER_NAMES[paper]} of ${subject.at.slice(0, 10)}.`,
    sections,
  };
}
