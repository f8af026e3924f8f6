import { ReedError, messageOf } from '@/core/errors';

/** What browsers call the failures of their storage, and what they mean for a person. */
const WORDS: Readonly<Record<string, string>> = {
  QuotaExceededError:
    'this browser’s storage is full: delete sheets that are no longer needed, or free space on the disk',
  VersionError:
    'a newer version of the program has changed this browser’s storage: reload the page',
  DatabaseClosedError: 'the storage was closed: reload the page',
  MissingAPIError: 'this browser offers pages no storage',
  OpenFailedError: 'the storage could not be opened: leave private browsing, or allow site data',
  InvalidStateError: 'the storage is not available: leave private browsing, or allow site data',
  SecurityError: 'this browser does not allow the page to store anything: allow site data',
  DataCloneError: 'the sheet holds something that cannot be stored',
  TimeoutError: 'the storage did not answer: try again',
};

/** Why the store refused, in words that follow "because": no stack, no name of an exception. */
export function storageProblem(error: unknown): string {
  if (error instanceof ReedError) return messageOf(error).replace(/\.$/, '');
  const chain = [error, (error as { inner?: unknown } | null)?.inner];
  const failures = (error as { failures?: unknown } | null)?.failures;
  if (Array.isArray(failures)) chain.push(...(failures as unknown[]));
  for (const link of chain) {
    const name = (link as { name?: unknown } | null | undefined)?.name;
    if (typeof name === 'string' && name in WORDS) return WORDS[name];
    if (/quota/i.test(messageOf(link))) return WORDS.QuotaExceededError;
  }
  return 'the storage failed for a reason the browser does not give: try again, or export the sheet';
}

/** Why a sheet was not made: in the words of what refused it, or that the store did. */
export const whyNotMade = (failure: unknown): string =>
  failure instanceof ReedError
    ? messageOf(failure)
    : `The sheet was not stored: ${storageProblem(failure)}.`;
