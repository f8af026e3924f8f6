import { firstIssue } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { askFileSchema, type Ask, type AskFile } from './ask';

/**
 * An ask from a parsed JSON document.
 *
 * @throws ReedError `document` naming the field that is wrong and what it should be
 */
export function readAsk(document: unknown): AskFile {
  const parsed = askFileSchema.safeParse(document);
  if (parsed.success) return parsed.data;
  const { path, message } = firstIssue(parsed.error, document);
  throw new ReedError('document', `Not an ask: ${path === '' ? 'the document' : path} ${message}.`);
}

/** The ask itself, without what makes a file of it. */
export function askOfFile(file: AskFile): Ask & Pick<AskFile, 'opAmp'> {
  return Object.fromEntries(
    Object.entries(file).filter(([key]) => key !== 'format' && key !== 'version'),
  ) as Ask & Pick<AskFile, 'opAmp'>;
}
