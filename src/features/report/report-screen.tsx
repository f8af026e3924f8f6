'use client';

import { Button, Segmented } from 'antd';
import { strToU8, zipSync } from 'fflate';
import { useEffect, useMemo, useState } from 'react';
import type { BookEntry } from '@/core/book/entry';
import { markdownOf, picturesOf } from '@/core/report/markdown';
import type { Report } from '@/core/report/report';
import { PAPER_NAMES, type PaperKind } from '@/core/report/papers';
import type { Sheet } from '@/core/sheet/schema';
import { entriesOf } from '@/store/book';
import { now } from '@/store/ids';
import { useOpenLibrary } from '@/store/open-library';
import { flush, openSheet } from '@/store/session-storage';
import { useSheet } from '@/store/sheet-session';
import { download, fileName } from '@/ui/download';
import { useJob } from '../bench/use-job';
import { Unopened } from '../sheet/unopened';
import { sheetAddress } from '../shell/sheet-address';
import { useGo } from '../shell/leave-guard';
import { ReportBlocks } from './report-blocks';
import styles from './report.module.css';

/** One sheet as a document to print or send. */
export function ReportScreen({ id }: { id: string }) {
  const sheet = useSheet();
  useEffect(() => void openSheet(id), [id]);
  return sheet?.id === id ? <Open sheet={sheet} /> : <Unopened id={id} />;
}

function Open({ sheet }: { sheet: Sheet }) {
  const go = useGo();
  const [paper, setPaper] = useState<PaperKind>('report');
  const { library, loading } = useOpenLibrary();
  const lines = useLinesOf(sheet);
  const subject = useMemo(
    () => (lines && !loading ? { sheet, library, lines, at: now(), paper } : null),
    [sheet, library, lines, loading, paper],
  );
  const { result, problem } = useJob('writeReport', subject);
  useEffect(() => {
    document.title = `Report of ${sheet.title} · Jaunty Reed`;
  }, [sheet.title]);
  return (
    <div className={styles.screen}>
      <header className={styles.bar}>
        <Button onClick={() => go(sheetAddress(sheet.id))}>Back to the sheet</Button>
        <Segmented<PaperKind>
          aria-label="Which paper"
          value={paper}
          options={(Object.keys(PAPER_NAMES) as PaperKind[]).map((value) => ({
            value,
            label: PAPER_NAMES[value],
          }))}
          onChange={setPaper}
        />
        <span className={styles.gap} />
        <Button disabled={!result} onClick={() => result && saveMarkdown(result)}>
          Save as Markdown
        </Button>
        <Button type="primary" disabled={!result} onClick={() => window.print()}>
          Print
        </Button>
      </header>
      {problem !== null && (
        <p role="alert" className={styles.problem}>
          The report cannot be written: {problem}
        </p>
      )}
      {!result && problem === null && (
        <p className={styles.soft} role="status">
          The report is being written …
        </p>
      )}
      {result && (
        <article className={styles.paper} aria-label={`Report of ${result.title}`}>
          <h1>{result.title}</h1>
          <p className={styles.soft}>{result.subtitle}</p>
          {result.sections.map(({ title, blocks }) => (
            <section key={title} aria-label={title}>
              <h2>{title}</h2>
              <ReportBlocks blocks={blocks} />
            </section>
          ))}
        </article>
      )}
    </div>
  );
}

/** What the book says of a sheet, once what was done last is stored. */
function useLinesOf({ id }: Sheet): BookEntry[] | null {
  const [lines, setLines] = useState<BookEntry[] | null>(null);
  useEffect(() => {
    let here = true;
    flush()
      .then(() => entriesOf(id))
      // Without its lines it is still a report.
      .catch(() => [])
      .then((found) => here && setLines(found))
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, [id]);
  return lines;
}

/** The Markdown with its pictures beside it, in one file. */
function saveMarkdown(report: Report): void {
  const files = Object.fromEntries([
    ['report.md', strToU8(markdownOf(report))],
    ...picturesOf(report).map(({ name, svg }) => [`${name}.svg`, strToU8(svg)] as const),
  ]) as Record<string, Uint8Array>;
  const zip = zipSync(files);
  download(
    fileName(`${report.title} report`, 'zip'),
    new Blob([zip], { type: 'application/zip' }),
    'application/zip',
  );
}
