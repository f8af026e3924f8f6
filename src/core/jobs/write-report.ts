import type { Report } from '@/core/report/report';
import type { PaperKind } from '@/core/report/papers';
import { reportOf, type ReportSubject } from '@/core/report/sheet-report';
import type { Job } from './job';

/** A sheet as a document: a report where nothing else is said. */
export const writeReport: Job<ReportSubject & { paper?: PaperKind }, never, Report> = (
  { paper, ...subject },
  { pause },
) => reportOf(subject, pause, paper);
