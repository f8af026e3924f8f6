import { usePathname } from 'next/navigation';

/** What of a sheet has a screen of its own; the sheet itself is the address without a word behind it. */
export type SheetScreenName = 'parts' | 'board' | 'bench' | 'report';

/** Where a sheet is, or one of the screens that belong to it. */
export const sheetAddress = (id: string, screen?: SheetScreenName): string =>
  `/sheet/${encodeURIComponent(id)}${screen === undefined ? '' : `/${screen}`}`;

/** The id in the address of a sheet or of what belongs to it; none where an address means nothing. */
export function sheetIn(path: string): string | undefined {
  const id = /^\/sheet\/([^/]+)/.exec(path)?.[1];
  try {
    return id === undefined ? undefined : decodeURIComponent(id);
  } catch {
    return undefined;
  }
}

/**
 * The sheet that the address names. It is read in the browser and not by the server, so that one
 * page serves every sheet, also one that the server was never asked for.
 */
export const useSheetId = (): string => sheetIn(usePathname()) ?? '';
