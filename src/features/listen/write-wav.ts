import { wavOf } from '@/core/formats/wav';
import type { Program } from '@/core/listen/program';
import type { Sheet } from '@/core/sheet/schema';
import { download, fileName } from '@/ui/download';
import { engine } from '@/workers/engine';
import { resampled } from './recording';

/** Samples a second of what is written. */
export const WRITTEN_RATE = 48_000;

export interface WriteRequest {
  sheet: Sheet;
  way: number;
  program: Program;
  seconds: number;
  recording: { samples: Float64Array; rate: number } | null;
  signal: AbortSignal;
  progress: (done: number) => void;
}

/** What was written, and how many seconds of work a second of sound took. */
export interface Written {
  name: string;
  perSecond: number;
}

/** Play the program through the circuit away from the clock, and hand it over as a WAV file of volts. */
export async function writeWav(request: WriteRequest): Promise<Written> {
  const { sheet, way, program, seconds, recording, signal, progress } = request;
  const from = performance.now();
  const played =
    program.sound === 'recording' && recording
      ? Float64Array.from(await resampled(recording.samples, recording.rate, WRITTEN_RATE))
      : undefined;
  const volts = await engine().run(
    'renderProgram',
    { sheet, way, program, seconds, rate: WRITTEN_RATE, recording: played },
    { signal, progress },
  );
  const perSecond = (performance.now() - from) / 1000 / seconds;
  const name = fileName(sheet.title, 'wav');
  const bytes = wavOf(volts, WRITTEN_RATE);
  download(name, new Blob([bytes as BlobPart], { type: 'audio/wav' }), 'audio/wav');
  return { name, perSecond };
}
