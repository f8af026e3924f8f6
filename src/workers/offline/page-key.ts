/** Under this id the page that serves every sheet is kept; it is the id of none. */
export const ANY_SHEET = '-';

/**
 * What the framework asks for of a page beside the page itself: `tree` and `head` when it looks ahead,
 * `data` when it goes there without loading the page anew.
 */
export const DATA_KINDS = ['tree', 'head', 'data'] as const;
export type DataKind = (typeof DATA_KINDS)[number];

/** Headers with which each kind is asked for. */
export const DATA_HEADERS: Readonly<Record<DataKind, Readonly<Record<string, string>>>> = {
  tree: { rsc: '1', 'next-router-prefetch': '1', 'next-router-segment-prefetch': '/_tree' },
  head: {
    rsc: '1',
    'next-router-prefetch': '1',
    'next-router-state-tree': encodeURIComponent('["",{},null,"metadata-only"]'),
  },
  data: { rsc: '1' },
};

/** The name under which something of a page is kept. */
export const keyOf = (path: string, kind?: DataKind): string =>
  kind === undefined ? path : `${path}?_rsc=${kind}`;

/** The kind that a kept name is of, where it is of one. */
export const kindOfKey = (url: URL): DataKind | undefined =>
  DATA_KINDS.find((kind) => url.search === `?_rsc=${kind}`);

/** What somebody asks for, as far as it decides which kept page answers. */
export interface Asked {
  /** Path of the address. */
  path: string;
  /** Whether a page is to be shown. */
  navigates: boolean;
  header: (name: string) => string | null;
}

/**
 * The name under which the answer is kept, if it is one of a page at all. All sheets have one page:
 * which is shown is read from the address in the browser.
 */
export function pageKey({ path, navigates, header }: Asked): string | undefined {
  const page = path.replace(/^\/sheet\/[^/]+/, `/sheet/${ANY_SHEET}`).replace(/(.)\/$/, '$1');
  if (navigates) return keyOf(page);
  if (header('rsc') !== '1') return undefined;
  const segment = header('next-router-segment-prefetch');
  if (segment !== null) return segment === '/_tree' ? keyOf(page, 'tree') : undefined;
  return keyOf(page, header('next-router-prefetch') === '1' ? 'head' : 'data');
}
