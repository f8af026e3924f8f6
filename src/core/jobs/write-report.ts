import type { Report } from '@/core/report/report';
import { reportOf, type ReportSubject } from '@/core/report/sheet-report';
import type { Job } from './job';

/** A sheet as a document. */
export const writeReport: Job<ReportSubject, never, Report> = (subject, { pause }) =>
  reportOf(subject, pause);
