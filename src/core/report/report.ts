/** A picture that goes with a report, as the text of an SVG file. */
export interface ReportPicture {
  is: 'picture';
  /** Of its file, without an ending. */
  name: string;
  alt: string;
  svg: string;
}

export interface ReportTable {
  is: 'table';
  head: readonly string[];
  /** Which columns stand to the right: those with numbers. */
  numbers: readonly number[];
  rows: readonly (readonly string[])[];
}

/** One piece of a section, in the order that it is read. */
export type ReportBlock =
  | { is: 'text'; text: string }
  | { is: 'list'; items: readonly string[] }
  /** TeX, on a line of its own. */
  | { is: 'formula'; tex: string }
  | ReportTable
  | ReportPicture;

export interface ReportSection {
  title: string;
  blocks: readonly ReportBlock[];
}

/** A document about one sheet: written once, shown as Markdown and as a page alike. */
export interface Report {
  title: string;
  /** Under the title: what it is, and of when. */
  subtitle: string;
  sections: readonly ReportSection[];
}

export const text = (words: string): ReportBlock => ({ is: 'text', text: words });

export const table = (
  head: readonly string[],
  rows: readonly (readonly string[])[],
  numbers: readonly number[] = [],
): ReportTable => ({ is: 'table', head, rows, numbers });
