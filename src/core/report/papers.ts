/** The papers that can be written about a sheet, and what they are called. */
export const PAPER_NAMES = {
  /** All of it, for whoever builds it. */
  report: 'Report',
  /** For whoever buys it or plays it. */
  data: 'Data page',
} as const;
export type PaperKind = keyof typeof PAPER_NAMES;
