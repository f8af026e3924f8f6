import { readWav } from '@/core/formats/wav';
import type { Recording } from '@/core/sweep/swept';

/** A minute of two channels of 32 bits at 96 kHz. */
const MOST_BYTES = 46e6;

export interface NamedRecording extends Recording {
  name: string;
}

/**
 * A recording from a WAV file.
 *
 * @throws ReedError or Error with words for a person
 */
export async function readRecording(file: File): Promise<NamedRecording> {
  if (file.size > MOST_BYTES)
    throw new Error(`“${file.name}” is far longer than a measurement: cut it to a minute.`);
  const { samples, rate } = readWav(new Uint8Array(await file.arrayBuffer()), file.name);
  return { name: file.name, samples, rate };
}
