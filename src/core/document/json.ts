import { messageOf, ReedError } from '@/core/errors';
import { quoted } from '@/core/text';

/** The text of a file without the byte-order mark that some editors put in front. */
export const withoutMark = (text: string): string =>
  text.startsWith('\ufeff') ? text.slice(1) : text;

/**
 * The JSON of a file.
 *
 * @param name of the file, for the message
 * @throws ReedError `document`
 */
export function parseJson(text: string, name: string): unknown {
  try {
    return JSON.parse(withoutMark(text)) as unknown;
  } catch (error) {
    throw new ReedError('document', `${quoted(name)} is not JSON: ${messageOf(error)}.`);
  }
}
