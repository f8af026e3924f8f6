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
  const [issue] = parsed.error.issues;
  const where = issue.path.length > 0 ? issue.path.join('.') : 'the document';
  throw new ReedError('document', `Not an ask: ${where} ${issue.message}.`);
}

/** The ask itself, without what makes a file of it. */
export function askOfFile(file: AskFile): Ask & Pick<AskFile, 'opAmp'> {
  return Object.fromEntries(
    Object.entries(file).filter(([key]) => key !== 'format' && key !== 'version'),
  ) as Ask & Pick<AskFile, 'opAmp'>;
}
