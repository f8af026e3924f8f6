import { readSpeaker, type SpeakerDocument } from '@/core/speaker/document';
import { readJson } from './command';

/**
 * A speaker from a file: a speaker document, or a document that carries one as `document`.
 *
 * @throws ReedError naming what is wrong with it
 */
export function readSpeakerFile(path: string): SpeakerDocument {
  const document = readJson(path);
  const inner =
    typeof document === 'object' && document !== null && 'document' in document
      ? document.document
      : document;
  return readSpeaker(inner);
}
