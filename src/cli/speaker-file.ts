import { isCrossover } from '@/core/crossover/crossover-design';
import { speakerOf } from '@/core/crossover/speaker-of';
import { ReedError } from '@/core/errors';
import { readSheetFile } from '@/core/sheet/file';
import { withDrivers } from '@/core/sheet/references';
import { readSpeaker, type SpeakerDocument } from '@/core/speaker/document';
import { readJson } from './command';

/**
 * A speaker from a file: a speaker document, a document that carries one as `document`, or the sheet
 * of a crossover with the drivers that it brings along.
 *
 * @throws ReedError naming what is wrong with it
 */
export function readSpeakerFile(path: string): SpeakerDocument {
  const document = readJson(path);
  const fields = typeof document === 'object' && document !== null ? document : {};
  if ('format' in fields && fields.format === 'jaunty-reed/sheet') {
    const { sheet, along } = readSheetFile(document);
    const whole = withDrivers(sheet, along.drivers);
    if (!isCrossover(whole))
      throw new ReedError('document', 'The sheet is no crossover: it has no loudspeaker to solve.');
    return speakerOf(whole, 'true', whole.title);
  }
  return readSpeaker('document' in fields ? fields.document : document);
}
